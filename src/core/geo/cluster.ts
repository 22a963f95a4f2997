/** Marks on a chart that would cover each other, put into one. Positions in pixels of the drawing. */

/** A mark on the chart, by its position in pixels and its count. */
export interface Mark {
  id: string;
  x: number;
  y: number;
  /** what its ring counts; also how strongly it holds its place in a group */
  count: number;
}

/** Marks that would cover each other, as one. */
export interface MarkGroup {
  /** where its ring stands: the middle of its marks by their counts */
  x: number;
  y: number;
  /** ids of its marks, the largest first */
  ids: string[];
  count: number;
}

const middle = (marks: readonly Mark[]): { x: number; y: number } => {
  const weight = (mark: Mark): number => mark.count + 1;
  const all = marks.reduce((sum, mark) => sum + weight(mark), 0);
  return {
    x: marks.reduce((sum, mark) => sum + mark.x * weight(mark), 0) / all,
    y: marks.reduce((sum, mark) => sum + mark.y * weight(mark), 0) / all,
  };
};

interface Growing {
  x: number;
  y: number;
  marks: Mark[];
}

/**
 * Groups marks until no two rings are closer than `apart`. The closest two are joined first, so that what lies alone stays alone.
 * Cost: marks² for each join, with a few hundred marks at most.
 */
export function groupMarks(marks: readonly Mark[], apart: number): MarkGroup[] {
  const groups: Growing[] = marks.map((mark) => ({ x: mark.x, y: mark.y, marks: [mark] }));
  for (let pair = closest(groups, apart); pair; pair = closest(groups, apart)) {
    const [a, b] = pair;
    const joined = [...a.marks, ...b.marks];
    groups.splice(groups.indexOf(b), 1);
    groups[groups.indexOf(a)] = { ...middle(joined), marks: joined };
  }
  return groups.map(({ x, y, marks: own }) => ({
    x,
    y,
    ids: [...own].sort((a, b) => b.count - a.count || (a.id < b.id ? -1 : 1)).map((mark) => mark.id),
    count: own.reduce((sum, mark) => sum + mark.count, 0),
  }));
}

function closest(groups: readonly Growing[], apart: number): [Growing, Growing] | undefined {
  let best: [Growing, Growing] | undefined;
  let least = apart;
  for (const [i, a] of groups.entries())
    for (const b of groups.slice(i + 1)) {
      const distance = Math.hypot(a.x - b.x, a.y - b.y);
      if (distance < least) {
        least = distance;
        best = [a, b];
      }
    }
  return best;
}
