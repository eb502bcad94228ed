import { pastedInto } from './pasted';

describe('Cells of a spreadsheet', () => {
  const table = { columns: ['start', 'healed'], rows: [[1, 2] as number[], [3, 4]] };

  it('take the place of those from a cell on; the table grows as far as they need', () => {
    expect(pastedInto(table, { row: 1, column: 0 }, '5\t6\r\n7\t8\r\n')).toEqual({
      columns: ['start', 'healed'],
      rows: [
        [1, 2],
        [5, 6],
        [7, 8],
      ],
    });
    expect(pastedInto(table, { row: 0, column: 1 }, '9\t10')).toEqual({
      columns: ['start', 'healed', 'column3'],
      rows: [
        [1, 9, 10],
        [3, 4, 0],
      ],
    });
  });

  it('with names above them are a table of their own', () => {
    expect(pastedInto(table, { row: 0, column: 0 }, 'Start at\thealed\texpected value\n1\t2\t3\n')).toEqual({
      columns: ['startAt', 'healed', 'expectedValue'],
      rows: [[1, 2, 3]],
    });
    expect(pastedInto(table, { row: -1, column: 0 }, 'begins').columns).toEqual(['begins']);
  });

  it('are numbers where they are, with a point or a comma, and texts otherwise', () => {
    expect(pastedInto(table, { row: 0, column: 0 }, '-1,5\n2.25\nbite').rows).toEqual([
      [-1.5, 2],
      [2.25, 4],
      ['bite', 0],
    ]);
  });
});
