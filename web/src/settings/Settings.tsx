import { useLiveQuery } from "dexie-react-hooks";
import { useEffect, useState } from "react";
import { BANK_KEYS, BANKS, type BankKey } from "@ash-edge/tools";
import { Page } from "../app/Page.tsx";
import { useDatabase } from "../app/StoreProvider.tsx";
import { keptOf, KEPT_KEY } from "../bench/kept.ts";
import { ProfilesCard } from "../profiles/ProfilesCard.tsx";
import { StyleCard } from "./StyleCard.tsx";
import { StorageCard } from "./StorageCard.tsx";
import { keyFor, placeOf, withKey, type KeyMap } from "../bench/keys.ts";

/** The keys of the key grid, which can be put on other keys of the same fifteen. */
export const Settings = () => {
  const database = useDatabase();
  const kept = useLiveQuery(async () => keptOf((await database.settings.get(KEPT_KEY))?.value).kept, [database]);
  const [asking, setAsking] = useState<BankKey>();
  const [said, setSaid] = useState<string>();
  const keys = kept?.keys ?? {};
  const put = (next: KeyMap): void =>
    void (kept && database.settings.put({ key: KEPT_KEY, value: { ...kept, keys: next } }));

  useEffect(() => {
    if (!asking) return undefined;
    const onKey = (event: KeyboardEvent): void => {
      event.preventDefault();
      setAsking(undefined);
      if (event.key === "Escape") return setSaid(undefined);
      if (!(event.code in BANKS))
        return setSaid(`${event.key} is none of the fifteen keys under the left hand. Q to T, A to G and Z to B work.`);
      const key = event.code as BankKey;
      const other = placeOf(key, keys);
      put(withKey(keys, asking, key));
      setSaid(
        other === asking
          ? undefined
          : `${BANKS[asking]} is on ${key.slice(3)} now, and ${BANKS[other]} on ${keyFor(asking, keys).slice(3)}.`,
      );
    };
    window.addEventListener("keydown", onKey, true);
    return () => window.removeEventListener("keydown", onKey, true);
  });

  return (
    <Page title="Settings">
      <div className="mx-auto max-w-3xl">
        <h1 className="text-lg font-semibold">Settings</h1>
        <section className="card mt-3 p-4" aria-label="Keys">
          <h2 className="font-semibold">Keys of the key grid</h2>
          <p className="mt-1 text-soft">
            A bank is taken by the place of its key under the left hand, whatever is printed on it. Click one, then
            press the key that should take it; the bank that had that key gets the other one.
          </p>
          <ul className="mt-3 grid grid-cols-5 gap-2">
            {BANK_KEYS.map((place) => (
              <li key={place}>
                <button
                  type="button"
                  aria-label={`Key of ${BANKS[place]}`}
                  aria-pressed={asking === place}
                  onClick={() => setAsking(place)}
                  className={
                    "flex h-14 w-full flex-col justify-between rounded-card border px-2 py-1 text-left " +
                    `${asking === place ? "border-ember bg-ember-wash" : "border-hair bg-board hover:border-ink"}`
                  }
                >
                  <span className="figures text-soft">
                    {asking === place ? "press a key" : keyFor(place, keys).slice(3)}
                  </span>
                  {BANKS[place]}
                </button>
              </li>
            ))}
          </ul>
          <p role="status" className="mt-2 min-h-5 text-moss">
            {said}
          </p>
          <button
            type="button"
            disabled={Object.keys(keys).length === 0}
            className="h-8 rounded-card border border-hair px-3 disabled:opacity-50"
            onClick={() => {
              put({});
              setSaid("Every bank is on its own key again.");
            }}
          >
            All as they came
          </button>
        </section>
        <StyleCard />
        <ProfilesCard />
        <StorageCard />
      </div>
    </Page>
  );
};
