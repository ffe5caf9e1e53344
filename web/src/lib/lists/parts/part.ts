/** What every editor of a value of several parts is given. */
export interface PartProps<T> {
  id: string;
  label: string;
  note?: string;
  error?: string;
  value: T | undefined;
  onchange: (value: T) => void;
}
