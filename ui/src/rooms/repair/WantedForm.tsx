import { NativeSelect } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { type NewWanted, type PartsView, useKeepWanted, type WantedView } from "../../api/shelf";
import { Act } from "../../app/controls/Act";
import { Chip } from "../../app/controls/Chip";
import { Field, NumberField } from "../../app/controls/Field";
import { Problem } from "../../app/Problem";
import { useForm } from "../../app/useForm";
import { parts as words } from "../../words/shelf";

type Offer = NewWanted["offers"] extends (infer T)[] | undefined ? T : never;
type Draft = { part: string; type_number: string; variant: string; offers: Offer[]; chosen: number | null };
type Props = { view: PartsView; leader: string; row?: WantedView; onDone: () => void };

const EMPTY: Offer = { source: "", condition: "new", price: "", days: "" };

/** A part for the exact type and variant, with the places where it can be had; what is typed stays until it is kept. */
export function WantedForm({ view, leader, row, onDone }: Props) {
  const keep = useKeepWanted(view.job.id);
  const [id] = useState(() => row?.id ?? crypto.randomUUID());
  const [draft, setDraft, forget] = useForm<Draft>(
    `ohmcensus.wanted.${view.job.id}.${row?.id ?? "new"}`,
    startOf(view, leader, row),
  );
  const set = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const setOffer = (at: number, part: Partial<Offer>) =>
    set({ offers: draft.offers.map((offer, place) => (place === at ? { ...offer, ...part } : offer)) });
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const offers = draft.offers.filter((offer) => offer.source || offer.price);
    const chosen = draft.chosen !== null && draft.chosen < offers.length ? draft.chosen : null;
    const body = {
      ...draft,
      offers,
      chosen,
      revision: row?.revision ?? 0,
      state: row?.wanted.state ?? "wanted",
      words: row?.wanted.words ?? "",
    } as NewWanted;
    try {
      await keep.mutateAsync({ id, body });
      forget();
      onDone();
    } catch {
      // said below
    }
  };
  return (
    <form className="stack wanted" aria-label={words.add} onSubmit={(event) => void submit(event)}>
      <div className="worth-fields">
        <NativeSelect
          label={words.part}
          value={draft.part}
          data={view.parts.map((part) => ({ value: part.id, label: part.words }))}
          onChange={(event) => set({ part: event.currentTarget.value })}
        />
        <Field
          label={words.type}
          value={draft.type_number}
          onChange={(typed) => set({ type_number: typed })}
        />
        <Field
          label={words.variant}
          placeholder={words.variantHint}
          value={draft.variant}
          onChange={(typed) => set({ variant: typed })}
        />
      </div>
      {draft.offers.map((offer, at) => (
        <fieldset key={at} className="offer">
          <legend>{words.offer(at + 1)}</legend>
          <Field
            label={words.source}
            value={offer.source}
            onChange={(typed) => setOffer(at, { source: typed })}
          />
          <NumberField
            label={words.price}
            value={offer.price}
            onChange={(typed) => setOffer(at, { price: typed })}
          />
          <NumberField
            label={words.days}
            value={offer.days ?? ""}
            onChange={(typed) => setOffer(at, { days: typed })}
          />
          <NativeSelect
            label={words.condition}
            value={offer.condition ?? "new"}
            data={view.conditions.map((condition) => ({ value: condition.id, label: condition.words }))}
            onChange={(event) => setOffer(at, { condition: event.currentTarget.value as "new" })}
          />
          {draft.offers.length > 1 && (
            <Chip isOn={draft.chosen === at} onClick={() => set({ chosen: draft.chosen === at ? null : at })}>
              {draft.chosen === at ? words.taken : words.take}
            </Chip>
          )}
        </fieldset>
      ))}
      <Problem error={keep.error} />
      <div className="row wrap">
        <Act
          look="plain"
          disabled={draft.offers.length >= 10}
          onClick={() => set({ offers: [...draft.offers, EMPTY] })}
        >
          {words.moreOffers}
        </Act>
        <Act type="submit" disabled={keep.isPending}>
          {row ? words.change : words.keep}
        </Act>
      </div>
    </form>
  );
}

function startOf(view: PartsView, leader: string, row: WantedView | undefined): Draft {
  if (!row)
    return {
      part: leader,
      type_number: view.type_number,
      variant: view.variant,
      offers: [EMPTY],
      chosen: null,
    };
  const { wanted } = row;
  return {
    part: wanted.part,
    type_number: wanted.type_number ?? "",
    variant: wanted.variant ?? "",
    offers: (wanted.offers ?? []).map((offer) => ({
      source: offer.source,
      condition: offer.condition ?? "new",
      price: offer.price.toFixed(2),
      days: offer.days ? String(offer.days) : "",
    })),
    chosen: wanted.chosen ?? null,
  };
}
