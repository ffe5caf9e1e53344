import type { Example } from './spec';

/** How a layer is drawn: the one edited in sea, those below it faint, add-ons in ochre and ink. */
export interface LayerLook {
  id: string;
  code: string;
  name: string;
  isAddOn: boolean;
  /** Its place, 0 at the bottom. */
  place: number;
  tone: string;
}

/** The layers of an example, lowest first, with the tone each is drawn in. */
export function layerLooks(example: Example | undefined, edited: string): LayerLook[] {
  const layers = example?.layers ?? [];
  let addOns = 0;
  return layers.map((layer, place) => {
    const tone = layer.code === edited ? 'bg-sea' : layer.isAddOn ? (addOns++ % 2 === 0 ? 'bg-ochre' : 'bg-ink') : 'bg-faint';
    return { id: layer.id, code: layer.code, name: layer.name, isAddOn: layer.isAddOn, place, tone };
  });
}
