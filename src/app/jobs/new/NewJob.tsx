'use client';
/** A new job in under a minute: what the owner says, and the rig from a handful of choices, drawn as one chooses. */
import { clsx } from 'clsx';
import { useQuery } from '@tanstack/react-query';
import { ArrowRight } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useDeferredValue, useMemo, useState } from 'react';
import { fetchShop, postOpenJob, type ApiError } from '@/client/api';
import { RULE_SETS } from '@/core/codes';
import type { Complaint } from '@/core/parts/complaints';
import { COUPLED_FAMILIES, type CoupledFamily } from '@/core/rig/archetypes/coupledChoices';
import { tapsIgnition } from '@/core/rig/archetypes/ignitionTap';
import { USUAL_COUPLED } from '@/core/rig/archetypes/coupled';
import { drawRig } from '@/core/rig/archetypes/families';
import { USUAL_MOTORHOME } from '@/core/rig/archetypes/motorhome';
import { complaintSays, complaintsOf } from '@/core/rig/complaintsOf';
import { rigInWords } from '@/core/rig/inWords';
import type { Made } from '@/core/rig/schema';
import { DEFAULT_SETTINGS } from '@/core/shop/shop';
import { inWords } from '@/core/units/vocabulary';
import { Choose } from '@/ui/fields';
import { PageTop } from '@/ui/PageTop';
import { LoomStrip } from '@/ui/strip/LoomStrip';
import { USUAL_BENCH } from '@/core/rig/archetypes/bench';
import { BenchForm } from './BenchForm';
import { CoupledForm } from './CoupledForm';
import { MotorhomeForm } from './MotorhomeForm';
import { Group, Spoken } from './rigFields';
import { useDraft } from '@/ui/draft';

type FamilyId = 'motorhome' | 'bench' | CoupledFamily;
const FAMILIES: readonly { id: FamilyId; label: string }[] = [
  { id: 'motorhome', label: 'Motorhome' },
  ...COUPLED_FAMILIES,
  { id: 'bench', label: 'Bench' },
];
const usual = (f: FamilyId): Made =>
  f === 'motorhome'
    ? { family: f, choices: USUAL_MOTORHOME }
    : f === 'bench'
      ? { family: f, choices: USUAL_BENCH }
      : { family: 'coupled', choices: USUAL_COUPLED[f] };
const nothing = () => undefined;

/** What is written of a job before it is opened. */
interface Draft {
  nickname: string;
  words: string;
  ticked: readonly Complaint[];
  made: Made;
}
const EMPTY: Draft = { nickname: '', words: '', ticked: [], made: { family: 'motorhome', choices: USUAL_MOTORHOME } };

export function NewJob() {
  const router = useRouter();
  const shop = useQuery({ queryKey: ['shop'], queryFn: fetchShop, staleTime: 60_000 });
  const { vocabulary, length, jurisdiction } = shop.data?.shop.settings ?? DEFAULT_SETTINGS;
  const spoken = useMemo(() => ({ words: (text: string) => inWords(vocabulary, text), length }), [vocabulary, length]);
  const { words: inShopWords } = spoken;
  const usualFridge = RULE_SETS[jurisdiction].fridgeWatts;
  const [id] = useState(() => crypto.randomUUID());
  const [draft, setDraft, forget] = useDraft<Draft>('new-job', EMPTY);
  const { nickname, words, ticked, made } = draft;
  const change = (part: Partial<Draft>) => setDraft({ ...draft, ...part });
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  // A fridge nobody has read the label of is what is usual here.
  const here = useMemo<Made>(
    () =>
      made.family === 'coupled' && made.choices.fridge
        ? { ...made, choices: { fridgeWatts: usualFridge, ...made.choices } }
        : made,
    [made, usualFridge],
  );
  const drawn = useDeferredValue(here);
  const rig = useMemo(() => rigInWords(vocabulary, drawRig('preview', 'the new rig', drawn)), [drawn, vocabulary]);
  const tapped = useMemo(() => tapsIgnition(rig), [rig]);
  // What was ticked for a rig of another family and is not offered for this one is not told of it.
  const offered = complaintsOf(rig);
  const codes = ticked.filter((c) => offered.includes(c));
  const ready = nickname.trim() !== '' && (codes.length > 0 || words.trim() !== '');
  const bench = made.family === 'bench';
  const lacks =
    nickname.trim() === ''
      ? bench
        ? 'Give the bench a name'
        : 'Give the rig a nickname'
      : bench
        ? 'Say what you want to see'
        : 'Say what the owner complains of';

  const open = async () => {
    setBusy(true);
    setProblem(undefined);
    try {
      const said = words.trim() === '' ? codes.map((k) => complaintSays(k, rig)).join('. ') : words.trim();
      const { number } = await postOpenJob({
        id,
        nickname: nickname.trim(),
        complaint: { codes: [...codes], words: said.slice(0, 400) },
        rig: here,
      });
      forget();
      router.push(`/jobs/${number}/readings`);
    } catch (e) {
      setProblem((e as ApiError).message);
      setBusy(false);
    }
  };

  return (
    <Spoken.Provider value={spoken}>
      <div className="newjob grid h-dvh overflow-hidden">
        <PageTop title="New job" name={nickname.trim() || 'no name yet'} sub={rig.kind} />
        <section
          className={clsx(
            'stripbox',
            'flex justify-center',
            'h-79.5 min-w-0 pt-0.75 overflow-hidden border-b-2 border-ink bg-paper',
            'max-phone:h-full max-phone:justify-start',
          )}
          aria-label="The rig as chosen"
        >
          <div className="pan flex-1 min-w-0 overflow-x-auto overflow-y-hidden">
            <LoomStrip rig={rig} faces={{}} onPick={nothing} words={inShopWords} />
          </div>
        </section>
        <div className="px-3 pt-2">
          <Choose<FamilyId>
            label=""
            choices={FAMILIES.map((f) => ({ ...f, label: inShopWords(f.label) }))}
            value={made.family === 'coupled' ? made.choices.family : made.family}
            onChange={(f) => change({ made: usual(f) })}
          />
        </div>
        <main className="newform grid items-start gap-3 p-3 overflow-y-auto max-phone:p-2">
          <Group title={bench ? 'What it is for' : 'What the owner says'}>
            <label className="field">
              <span>{bench ? 'A name for the bench' : 'Rig’s nickname, no customer names'}</span>
              <input
                className="input w-full max-w-none border-ink"
                value={nickname}
                maxLength={40}
                onChange={(e) => change({ nickname: e.target.value })}
                autoComplete="off"
              />
            </label>
            {!bench && (
              <div className="ticks grid grid-cols-2 gap-1.25" role="group" aria-label="Complaint">
                {offered.map((k) => (
                  <label
                    key={k}
                    className={clsx(
                      'relative flex items-center gap-2',
                      'min-h-12 px-2 py-0.75 border border-rule rounded',
                      'text-note leading-close cursor-pointer',
                      'is-on:border-ink is-on:font-semibold',
                      codes.includes(k) ? 'on' : '',
                    )}
                  >
                    <input
                      className="absolute w-0.25 h-0.25 opacity-0"
                      type="checkbox"
                      checked={codes.includes(k)}
                      onChange={(e) =>
                        change({ ticked: e.target.checked ? [...codes, k] : codes.filter((x) => x !== k) })
                      }
                    />
                    {inShopWords(complaintSays(k, rig))}
                  </label>
                ))}
              </div>
            )}
            <label className="field">
              <span>{bench ? 'What you want to see' : 'In the owner’s words'}</span>
              <textarea
                className="textarea w-full max-w-none border-ink"
                rows={2}
                maxLength={400}
                value={words}
                onChange={(e) => change({ words: e.target.value })}
              />
            </label>
          </Group>
          {made.family === 'motorhome' ? (
            <MotorhomeForm
              c={made.choices}
              tapped={tapped}
              set={(part) => change({ made: { family: 'motorhome', choices: { ...made.choices, ...part } } })}
            />
          ) : made.family === 'bench' ? (
            <BenchForm
              c={made.choices}
              set={(part) => change({ made: { family: 'bench', choices: { ...made.choices, ...part } } })}
            />
          ) : (
            <CoupledForm
              c={made.choices}
              tapped={tapped}
              usualFridge={usualFridge}
              set={(part) => change({ made: { family: 'coupled', choices: { ...made.choices, ...part } } })}
            />
          )}
        </main>
        <footer
          className={clsx(
            'newfoot',
            'flex items-center justify-between gap-4',
            'px-3 py-2 border-t-2 border-ink bg-paper',
            'max-phone:grid',
          )}
        >
          {problem ? (
            <p role="alert" className="warn-line">
              {problem} Nothing you entered is lost: press again.
            </p>
          ) : (
            <p className="quiet max-w-160">
              {rig.parts.length} parts, {rig.conductors.length} conductors, {rig.probes.length} probes. Lengths and
              gauges are usual ones, marked assumed: edit what you measure.
            </p>
          )}
          {draft !== EMPTY && !busy && (
            <button type="button" className="btn min-w-0" onClick={forget}>
              Start over
            </button>
          )}
          <button
            type="button"
            className={`btn${ready && !busy ? ' btn-accent' : ' btn-dash'}`}
            aria-disabled={!ready || busy}
            onClick={() => ready && !busy && void open()}
          >
            {busy ? 'Opening' : ready ? 'Open the job' : lacks}
            {ready && !busy && <ArrowRight size={22} aria-hidden="true" />}
          </button>
        </footer>
      </div>
    </Spoken.Provider>
  );
}
