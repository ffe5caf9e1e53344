import { decimal } from '$lib/text/decimal';

const empty = () => ({ given_name: '', family_name: '', email: '', site: '' }) as Record<string, string>;

/** A hire being typed. It outlives the sheet it is typed in, so that putting the sheet away loses nothing. */
class Draft {
  id = $state(crypto.randomUUID());
  template = $state('');
  start = $state<string | null>(null);
  typed = $state(empty());

  set(field: string, value: string) {
    if (value === '') delete this.typed[field];
    else this.typed[field] = value;
  }

  /** What was typed, as it is sent. */
  get typedValues(): Record<string, string | number | null> {
    return Object.fromEntries(
      Object.entries(this.typed)
        .filter(([, v]) => v.trim() !== '')
        .map(([field, v]) => [field, field === 'pay_rate' ? (decimal(v) ?? v) : v])
    );
  }

  /** How many entries that took. */
  get count() {
    return Object.keys(this.typedValues).length + (this.template ? 1 : 0) + (this.start ? 1 : 0);
  }

  clear() {
    this.id = crypto.randomUUID();
    this.template = '';
    this.start = null;
    this.typed = empty();
  }
}

export const draft = new Draft();
