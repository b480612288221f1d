import type { Equipment, Station } from './station';

/** How a plan calls the ovens and places to cool it takes up: by their id, an oven with how hot it is to be, since at any other heat it is another thing. */

/** `temperatureC`: null = the card does not say. */
export function ovenAt(ovenId: string, temperatureC: number | null): string {
  return `${ovenId}@${temperatureC === null ? '' : String(temperatureC)}`;
}

export function readPlace(resourceId: string): { readonly equipmentId: string; readonly temperatureC: number | null } {
  const at = resourceId.lastIndexOf('@');
  if (at < 0) return { equipmentId: resourceId, temperatureC: null };
  const heat = resourceId.slice(at + 1);
  return { equipmentId: resourceId.slice(0, at), temperatureC: heat === '' ? null : Number(heat) };
}

/** The ovens or places to cool a planned step takes up. */
export function placesOf({ uses }: { readonly uses: readonly { readonly resourceId: string }[] }, { equipment }: Pick<Station, 'equipment'>): readonly Equipment[] {
  return uses.flatMap(({ resourceId }) => equipment.filter(({ id }) => id === readPlace(resourceId).equipmentId));
}
