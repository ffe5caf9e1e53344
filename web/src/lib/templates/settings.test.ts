import { describe, expect, it } from 'vitest';
import { settingsOf, withoutSetting, withSetting } from './settings';

describe('the fields a task sets', () => {
  const settings = [
    { field: 'kind', formula: "'permanent'" },
    { field: 'end_date', formula: 'addMonths(start_date, 7)' }
  ];

  it('are changed in their place, and added at the end', () => {
    expect(withSetting(settings, 'kind', '')).toEqual([{ field: 'kind', formula: '' }, settings[1]]);
    expect(withSetting(settings, 'site', "'skerry'")).toEqual([...settings, { field: 'site', formula: "'skerry'" }]);
  });

  it('are no property at all without the last', () => {
    expect(withoutSetting(settings, 'kind')).toEqual([settings[1]]);
    expect(withoutSetting(settings.slice(0, 1), 'kind')).toBeUndefined();
  });

  it('are none where a layer says something else', () => {
    expect(settingsOf({ sets: "kind = 'permanent'" })).toEqual([]);
    expect(settingsOf({ sets: [null, { field: 'kind' }, settings[1]] })).toEqual([settings[1]]);
  });
});
