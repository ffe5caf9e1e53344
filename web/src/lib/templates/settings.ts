/** A field that a task sets by itself, and to what, as templates keep it. */
export interface Setting {
  field: string;
  formula: string;
}

/** The fields that the properties of a task set. */
export const settingsOf = (properties: Record<string, unknown>): Setting[] =>
  Array.isArray(properties.sets)
    ? (properties.sets as Setting[]).filter((s) => typeof s?.field === 'string' && typeof s.formula === 'string')
    : [];

/** The same with what one field becomes; with an empty formula, too, so that it can be typed anew. */
export const withSetting = (settings: Setting[], field: string, formula: string): Setting[] =>
  settings.some((s) => s.field === field)
    ? settings.map((s) => (s.field === field ? { field, formula } : s))
    : [...settings, { field, formula }];

/** The same without a field; nothing where none is left. */
export function withoutSetting(settings: Setting[], field: string): Setting[] | undefined {
  const left = settings.filter((s) => s.field !== field);
  return left.length > 0 ? left : undefined;
}
