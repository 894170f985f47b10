/** Where the service worker keeps what a card needs without network. */
export const SHELL = "anvil-shell";
export const WHO = "anvil-who";
const CARDS = "anvil-cards-of-";

/** The cards that a person opened in this browser. */
export const cardsOf = (person: string) => `${CARDS}${person}`;

/** Take away what is kept here of a person: it is signed out. */
export async function forgetCards(person: string): Promise<void> {
  if (!("caches" in globalThis)) return;
  await Promise.all([caches.delete(cardsOf(person)), caches.delete(WHO)]);
}

/** A card that this browser keeps. */
export type KeptCard = { run: number; name: string; release: number; href: string };

/** The cards of a person that this browser keeps, each once. */
export async function keptCards(person: string): Promise<KeptCard[]> {
  if (!("caches" in globalThis) || !(await caches.has(cardsOf(person)))) return [];
  const cache = await caches.open(cardsOf(person));
  const found = new Map<string, KeptCard>();
  for (const request of await cache.keys()) {
    const { pathname, searchParams } = new URL(request.url);
    if (!pathname.endsWith("/card")) continue;
    const page = (await (await cache.match(request))?.json()) as {
      run: number;
      name: string;
      release: { number: number };
    };
    const units = searchParams.get("units") ?? "metric";
    const asked = new URLSearchParams({ units });
    if (searchParams.has("release")) asked.set("release", String(page.release.number));
    const card = { run: page.run, name: page.name, release: page.release.number };
    found.set(`${card.run} ${card.release}`, { ...card, href: `/runs/${page.run}/card?${asked}` });
  }
  return [...found.values()].sort((a, b) => a.name.localeCompare(b.name));
}
