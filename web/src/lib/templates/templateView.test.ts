import type { Api } from '$lib/api/client';
import { beforeEach, describe, expect, it } from 'vitest';
import { TemplateEditing } from './editing.svelte';
import type { Example } from './spec';
import { TemplateView } from './templateView.svelte';

const offered = [
  { maySet: true, rowKey: null, field: { key: 'pay_rate', label: { en: 'Rate', de: 'Satz' } } },
  { maySet: false, rowKey: null, field: { key: 'service', label: { en: 'Service', de: 'Dienst' } } },
  { maySet: true, rowKey: 'item', field: { key: 'items.size', label: { en: 'Size', de: 'Größe' } } }
] as unknown as Api['TemplateField'][];

describe('a template on one page', () => {
  let editing: TemplateEditing;
  let view: TemplateView;
  beforeEach(() => {
    editing = new TemplateEditing('deckhand');
    view = new TemplateView(editing, () => offered);
  });

  it('has tasks alone where it is for somebody who works here, and shows them', () => {
    expect(view.parts).toContain('values');
    view.go('values');
    editing.example = { layers: [], values: [], entries: [], findings: [{ part: 'values', blocks: true }] } as unknown as Example;
    expect(view.wrong).toEqual(['values']);
    editing.content = { ...editing.spec, occasion: 'leaving' };
    expect([view.parts, view.part, view.wrong]).toEqual([['tasks', 'about'], 'tasks', ['about']]);
  });

  it('counts what a hire would get of each part', () => {
    expect(view.counts).toMatchObject({ values: 0, tasks: 0, welcome: 0 });
    editing.example = {
      layers: [{ id: '1', code: 'deckhand', name: 'Deckhand', isAddOn: false }],
      values: [{}, {}],
      entries: [{ list: 'tasks' }, { list: 'tasks' }, { list: 'items' }],
      findings: []
    } as unknown as Example;
    expect(view.counts).toMatchObject({ values: 2, tasks: 2, items: 1, welcome: 0 });
    expect(view.looks.map((l) => [l.code, l.tone])).toEqual([['deckhand', 'bg-sea']]);
  });

  it('marks the parts in which something keeps it from being published; what is of none under About', () => {
    const finding = (part: string, blocks: boolean) => ({ part, blocks });
    editing.example = {
      layers: [],
      values: [],
      entries: [],
      findings: [finding('tasks', true), finding('tasks', true), finding('items', false), finding('when', true)]
    } as unknown as Example;
    expect(view.wrong).toEqual(['tasks', 'about']);
  });

  it('knows the field whose value is selected, and whether a template may set it', () => {
    expect([view.field, view.maySet]).toEqual([undefined, false]);
    view.selected = 'pay_rate';
    expect([view.field?.key, view.maySet]).toEqual(['pay_rate', true]);
    view.selected = 'service';
    expect([view.field?.key, view.maySet]).toEqual(['service', false]);
    view.selected = 'items.size@gloves';
    expect([view.field?.key, view.maySet]).toEqual(['items.size@gloves', true]);
    view.selected = 'unheard';
    expect(view.field).toBeUndefined();
  });

  it('selects nothing in a part it goes to, and no value outside the values', () => {
    view.selected = 'pay_rate';
    view.go('tasks');
    expect([view.part, view.selected]).toEqual(['tasks', undefined]);
    view.selected = 'pay_rate';
    expect(view.field).toBeUndefined();
  });
});
