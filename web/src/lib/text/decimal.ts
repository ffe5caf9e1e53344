/** A decimal number as people type it: "17.40", "17,40". Undefined for what is none. */
export function decimal(typed: string): number | undefined {
  const plain = typed.trim().replace(/\s/g, '');
  const normal = /^\d{1,3}(?:[.,]?\d)*$/.test(plain) ? plain : '';
  if (normal === '') return undefined;
  const last = Math.max(normal.lastIndexOf('.'), normal.lastIndexOf(','));
  const decimals = last < 0 ? 0 : normal.length - last - 1;
  // One mark with three digits behind it groups thousands; anything else behind the last mark is the decimals.
  const groups = decimals === 3 && (normal.match(/[.,]/g)?.length ?? 0) >= 1;
  return Number(
    last < 0 || groups ? normal.replace(/[.,]/g, '') : normal.slice(0, last).replace(/[.,]/g, '') + '.' + normal.slice(last + 1)
  );
}
