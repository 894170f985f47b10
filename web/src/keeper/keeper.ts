/// <reference lib="webworker" />
/**
 * The service worker: a card that was opened is there without network, for the person who opened it.
 *
 * It keeps the page and its files, who is here, and the cards; everything else goes to the server as ever. What it
 * kept is given only where the server does not answer, and says when it came.
 */
import { clientsClaim } from "workbox-core";
import { ExpirationPlugin } from "workbox-expiration";
import { cleanupOutdatedCaches, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { NetworkFirst, NetworkOnly } from "workbox-strategies";
import { KEPT_AT } from "../api/contact";
import { cardsOf, SHELL, WHO } from "../api/kept";

declare const self: ServiceWorkerGlobalScope;
/** Addresses of the built files; their names change with what they hold. */
declare const FILES: readonly string[];

const ANSWERS_WITHIN_S = 3;
const SESSION = "/api/session";
const CARD = /^\/api\/runs\/\d+\/(card(\/\d+\/done)?|running)$/;
const CARDS_KEPT = 60;
const DISK_FULL = 507; // the server's own word; other answers above 501 come from in front of it

/** A proxy that stands before a server that is away is no answer. */
const answeredItself = {
  fetchDidSucceed: async ({ response }: { response: Response }) => {
    if (response.status >= 502 && response.status !== DISK_FULL)
      throw new TypeError("The server does not answer.");
    return response;
  },
};

/** What was kept says so, and from when it is. */
const saysWhen = {
  cachedResponseWillBeUsed: async ({ cachedResponse }: { cachedResponse?: Response }) => {
    if (!cachedResponse) return null;
    const headers = new Headers(cachedResponse.headers);
    headers.set(KEPT_AT, headers.get("Date") ?? "");
    return new Response(cachedResponse.body, { status: cachedResponse.status, headers });
  },
};

const page = new NetworkFirst({
  cacheName: SHELL,
  networkTimeoutSeconds: ANSWERS_WITHIN_S,
  // Every address is the same page.
  plugins: [answeredItself, { cacheKeyWillBeUsed: async () => "/" }],
});

const session = new NetworkFirst({
  cacheName: WHO,
  networkTimeoutSeconds: ANSWERS_WITHIN_S,
  plugins: [
    answeredItself,
    saysWhen,
    {
      fetchDidSucceed: async ({ response }) => {
        if (response.status === 401) await caches.delete(WHO);
        return response;
      },
    },
  ],
});

const unkept = new NetworkOnly();
const cards = new Map<string, NetworkFirst>();

function cardsFor(person: string): NetworkFirst {
  const found =
    cards.get(person) ??
    new NetworkFirst({
      cacheName: cardsOf(person),
      networkTimeoutSeconds: ANSWERS_WITHIN_S,
      plugins: [
        answeredItself,
        saysWhen,
        new ExpirationPlugin({ maxEntries: CARDS_KEPT, purgeOnQuotaError: true }),
      ],
    });
  cards.set(person, found);
  return found;
}

/** Who is signed in here, as the server said last; it is asked where it never was. */
async function who(event: ExtendableEvent): Promise<string | null> {
  const find = () => caches.match(SESSION, { cacheName: WHO });
  let kept = await find();
  if (!kept) {
    const [, done] = session.handleAll({ request: new Request(SESSION), event });
    await done.catch(() => undefined); // nobody, or no answer
    kept = await find();
  }
  return kept ? ((await kept.json()) as { name: string }).name : null;
}

self.addEventListener("install", (event) => {
  event.waitUntil(caches.open(SHELL).then((cache) => cache.add("/")));
  void self.skipWaiting();
});
clientsClaim();
cleanupOutdatedCaches();
precacheAndRoute(FILES.map((url) => ({ url, revision: null })));
registerRoute(new NavigationRoute(page, { denylist: [/^\/(api|static)\//] }));
registerRoute(({ url, request }) => url.pathname === SESSION && request.method === "GET", session);
registerRoute(
  ({ url }) => CARD.test(url.pathname),
  async (asked) => {
    const person = await who(asked.event);
    return person === null ? unkept.handle(asked) : cardsFor(person).handle(asked);
  },
);
