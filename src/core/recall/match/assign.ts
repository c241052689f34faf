/**
 * The best assignment of rows to columns: each row gets one column, no column two rows, and the sum of what they cost is the least there
 * is. By successive shortest paths (H. W. Kuhn, 1955; R. Jonker and A. Volgenant, 1987): rows² × columns. `costs`: as many numbers in
 * each row, at least as many columns as rows; `Infinity` where two may not meet. Gives back the column of each row.
 */
// eslint-disable-next-line complexity -- one method of the literature, followed more easily in one piece
export function assign(costs: readonly (readonly number[])[]): readonly number[] {
  const rows = costs.length;
  const columns = costs[0]?.length ?? 0;
  if (rows > columns) throw new Error(`${rows} rows cannot each have one of ${columns} columns`);
  // Rows and columns count from 1; 0 is the row that is being placed, and no column.
  const ofRow = new Float64Array(rows + 1);
  const ofColumn = new Float64Array(columns + 1);
  const rowIn = new Int32Array(columns + 1);
  const cameFrom = new Int32Array(columns + 1);
  for (let row = 1; row <= rows; row++) {
    rowIn[0] = row;
    let at = 0;
    const least = new Float64Array(columns + 1).fill(Number.POSITIVE_INFINITY);
    const done = new Uint8Array(columns + 1);
    do {
      done[at] = 1;
      const from = rowIn[at]!;
      let step = Number.POSITIVE_INFINITY;
      let next = 0;
      for (let column = 1; column <= columns; column++) {
        if (done[column]) continue;
        const reduced = costs[from - 1]![column - 1]! - ofRow[from]! - ofColumn[column]!;
        if (reduced < least[column]!) {
          least[column] = reduced;
          cameFrom[column] = at;
        }
        if (least[column]! < step) {
          step = least[column]!;
          next = column;
        }
      }
      if (next === 0) throw new Error(`Row ${row - 1} can have no column`);
      for (let column = 0; column <= columns; column++) {
        if (done[column]) {
          ofRow[rowIn[column]!]! += step;
          ofColumn[column]! -= step;
        } else least[column]! -= step;
      }
      at = next;
    } while (rowIn[at] !== 0);
    for (; at !== 0; at = cameFrom[at]!) rowIn[at] = rowIn[cameFrom[at]!]!;
  }
  const found = new Array<number>(rows).fill(-1);
  for (let column = 1; column <= columns; column++) if (rowIn[column]! > 0) found[rowIn[column]! - 1] = column - 1;
  return found;
}
