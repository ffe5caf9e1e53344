import type { Api } from '$lib/api/client';

type Field = Api['FieldResponse'];
type RecordResponse = Api['RecordResponse'];

/** A row as it stands with what is being changed. */
export interface Row {
  id: string;
  /** Its cells by column; a column without a value as one that is empty. */
  cells: Map<string, Field>;
  /** Whether it is not saved yet. */
  fresh: boolean;
  /** Whether it is to be taken away. */
  gone: boolean;
  standing: Api['RowStanding'] | null;
}

/** The address of a column in a row, or of a whole row by the key of its field. */
export const addressIn = (key: string, row: string) => `${key}@${row}`;

/** The key of the field or column an address is of. */
export const keyIn = (address: string) => address.split('@')[0]!;

/** The row an address is in; undefined for what stands alone. */
export const rowIn = (address: string) => address.split('@')[1];

/** The key of the field whose rows a column belongs to. */
export const rowsIn = (address: string) => keyIn(address).split('.')[0]!;

/** All fields of a record, and the cells of their rows. */
export const allFields = (record: RecordResponse): Field[] =>
  record.sections.flatMap((s) => s.fields).flatMap((f) => [f, ...(f.rows?.rows.flatMap((r) => r.cells) ?? [])]);

/** The field at an address, in a row that is new too; undefined for a whole row, and for what there is not. */
export function fieldAt(record: RecordResponse, address: string): Field | undefined {
  const there = allFields(record).find((f) => f.key === address);
  if (there || rowIn(address) === undefined) return there;
  const column = record.sections
    .flatMap((s) => s.fields)
    .find((f) => f.key === rowsIn(address))
    ?.rows?.columns.find((c) => c.key === keyIn(address));
  return column && { ...column, key: address };
}

/** The cells of a row as it is stored. */
export const cellsOf = (record: RecordResponse, rows: string, row: string): Field[] =>
  allFields(record)
    .find((f) => f.key === rows)
    ?.rows?.rows.find((r) => r.id === row)?.cells ?? [];

/** The rows of a field, those that are being added at the end. */
export function rowsWith(field: Field, changes: Record<string, string>): Row[] {
  const table = field.rows!;
  const stored = table.rows.map((r) => r.id);
  const added = [
    ...new Set(
      Object.keys(changes)
        .filter((a) => rowIn(a) !== undefined && rowsIn(a) === field.key)
        .map((a) => rowIn(a)!)
    )
  ].filter((id) => !stored.includes(id));
  const cell = (column: Field, id: string, cells: Field[]) =>
    [column.key, cells.find((c) => keyIn(c.key) === column.key) ?? { ...column, key: addressIn(column.key, id) }] as const;
  return [
    ...table.rows.map((r) => ({ ...r, fresh: false })),
    ...added.map((id) => ({ id, cells: [] as Field[], standing: null, fresh: true }))
  ].map((r) => ({
    id: r.id,
    cells: new Map(table.columns.map((c) => cell(c, r.id, r.cells))),
    fresh: r.fresh,
    gone: addressIn(field.key, r.id) in changes,
    standing: r.standing
  }));
}
