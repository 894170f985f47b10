import { useEffect, useState } from "react";
import { type KeptCard, keptCards } from "../../api/kept";

/** Ways to the cards that this browser keeps for a person, for where the server does not answer. */
export function KeptCards({ person }: { person: string }) {
  const [cards, setCards] = useState<readonly KeptCard[]>([]);
  useEffect(() => {
    let here = true;
    keptCards(person).then(
      (found) => here && setCards(found),
      () => undefined, // a browser that keeps nothing
    );
    return () => {
      here = false;
    };
  }, [person]);
  if (cards.length === 0) return null;
  return (
    <nav aria-label="Cards kept on this tablet">
      <p>Cards kept here:</p>
      {cards.map((c) => (
        <p key={c.href}>
          <a href={c.href}>
            {c.name}, release {c.release}
          </a>
        </p>
      ))}
    </nav>
  );
}
