import type { Api } from '$lib/api/client';
import { nameOf as entryName } from '$lib/lists/queries';
import { text } from '$lib/text/index.svelte';
import { keyOf, reachOf, type Configuration, type Reach, type Right } from './rights';
import { words } from './words';

/** What roles, groups, rights and reaches are called, in the reader's language. */
export class RoleNames {
  constructor(
    readonly rights: Api['RolesResponse'],
    readonly draft: Configuration,
    readonly options: Api['ListOption'][]
  ) {}

  role(id: string): string {
    const own = this.draft.roles.find((r) => r.id === id);
    if (own) return said(own.label) ?? id;
    const told = this.rights.roles.find((r) => r.id === id);
    return told ? inLanguage(told.label) : id;
  }
  group(id: string): string {
    const own = this.draft.groups.find((g) => g.id === id);
    return (own && said(own.label)) ?? id;
  }
  reach(reach: Reach): string {
    const r = words().reaches;
    if (typeof reach === 'string') return r[reach];
    if ('site' in reach) return r.site(entryName(this.options, 'sites', reach.site));
    if ('department' in reach) return r.department(entryName(this.options, 'departments', reach.department));
    return r.group(this.group(reach.group));
  }
  /** What a right lets somebody do, without whom it reaches. */
  right(right: Pick<Right, 'do' | 'on'>): string {
    const w = words().role;
    if (right.do === 'as-set') return words().review.asSet(this.role(right.on));
    const thing = this.rights.rights.find((r) => r.do === right.do && r.on === right.on);
    if (thing) return inLanguage(thing.label);
    if (right.on === '*') return w.everything;
    const say = right.do === 'edit' ? w.edit : right.do === 'ask' ? w.ask : w.see;
    if (right.on.startsWith('section:')) {
      const section = this.rights.sections.find((s) => `section:${s.key}` === right.on);
      return say(w.sectionOf(section ? inLanguage(section.label) : right.on));
    }
    const field = this.rights.sections.flatMap((s) => s.fields).find((f) => f.key === right.on);
    return say(`“${field ? inLanguage(field.label) : right.on}”`);
  }
  /** Everybody a right can reach, to be chosen from. */
  get reaches(): { value: string; label: string }[] {
    const of = (list: string, kind: string) => this.options.filter((o) => o.list === list && !o.retired).map((o) => `${kind}:${o.code}`);
    return [
      'all',
      'self',
      'direct',
      'reports',
      'tasks',
      ...of('sites', 'site'),
      ...of('departments', 'department'),
      ...this.draft.groups.map((g) => keyOf({ group: g.id }))
    ].map((value) => ({ value, label: this.reach(reachOf(value)) }));
  }
  /** Every right there can be, to be chosen from. */
  get choices(): { value: string; label: string; detail?: string }[] {
    const each = (on: string) => (['see', 'ask', 'edit'] as const).map((action) => ({ do: action, on }));
    const fields = this.rights.sections.flatMap((s) => [...each(`section:${s.key}`), ...s.fields.flatMap((f) => each(f.key))]);
    return [...this.rights.rights.map((r) => ({ do: r.do, on: r.on })), ...fields].map((right) => ({
      value: `${right.do} ${right.on}`,
      label: this.right(right)
    }));
  }
  /** Whether a right can be of some people only. */
  isOfPeople(right: Pick<Right, 'do' | 'on'>): boolean {
    return right.on !== '*' && (this.rights.rights.find((r) => r.do === right.do && r.on === right.on)?.ofPeople ?? true);
  }
}

const inLanguage = (label: { en: string; de: string }) => (text.language === 'de' ? label.de : label.en);

const said = (label: Record<string, string>) => label[text.language] || label.en || undefined;
