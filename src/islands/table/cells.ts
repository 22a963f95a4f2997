/** Walking a table of rows by keyboard: which cell comes next. Without a browser, so that it is tested as it is. */

export interface Place {
  row: number;
  cell: number;
}

/** Where an arrow leads from a place, in a table of `rows` rows with `cells` cells that take the focus. */
export function step({ row, cell }: Place, key: string, rows: number, cells: number): Place | undefined {
  switch (key) {
    case 'ArrowDown':
      return row + 1 < rows ? { row: row + 1, cell } : undefined;
    case 'ArrowUp':
      return row > 0 ? { row: row - 1, cell } : undefined;
    case 'ArrowRight':
      return cell + 1 < cells ? { row, cell: cell + 1 } : undefined;
    case 'ArrowLeft':
      return cell > 0 ? { row, cell: cell - 1 } : undefined;
    case 'Home':
      return { row: 0, cell };
    case 'End':
      return { row: Math.max(0, rows - 1), cell };
    default:
      return undefined;
  }
}
