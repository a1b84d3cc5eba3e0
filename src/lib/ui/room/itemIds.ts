/** What items are called in edits, by their places in a package. */
export async function itemIds(packageId: string, places: readonly number[]): Promise<string[]> {
  const ids: string[] = [];
  for (const at of places) {
    const response = await fetch(`/api/packages/${packageId}/items/${at}`);
    ids.push(((await response.json()) as { item: { id: string } }).item.id);
  }
  return ids;
}
