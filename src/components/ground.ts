/** The page's ground in both themes, for what a browser draws around it; the same as `--ground` of the style sheet, which a test compares. */
export const GROUND = { light: '#eef1ee', dark: '#12181d' } as const;
