'use client';
/** A new job in under a minute: what the owner says, and the coach from a handful of choices, drawn as one chooses. */
import { ArrowLeft, ArrowRight } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useDeferredValue, useMemo, useState, type ReactNode } from 'react';
import { postOpenJob, type ApiError } from '@/client/api';
import { COMPLAINTS, type Complaint } from '@/core/diagnose/complaints';
import { CHARGER_CHOICES, CHEMISTRY_CHOICES, DISCONNECT_CHOICES, ENGINE_CHOICES, LAYOUT_CHOICES, LINK_CHOICES, SENSE_CHOICES } from '@/core/rig/archetypes/choices';
import type { BankChoice, MotorhomeChoices } from '@/core/rig/archetypes/choicesSchema';
import { motorhome, USUAL_MOTORHOME } from '@/core/rig/archetypes/motorhome';
import { Choose, NumberField } from '@/ui/fields';
import { LoomStrip } from '@/ui/strip/LoomStrip';

const FEET = 0.3048;
const nothing = () => undefined;

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="grp-box" aria-label={title}>
      <h2>{title}</h2>
      {children}
    </section>
  );
}

function Bank({ title, bank, change }: { title: string; bank: BankChoice; change(bank: BankChoice): void }) {
  return (
    <Group title={title}>
      <Choose label="Chemistry" choices={CHEMISTRY_CHOICES} value={bank.chemistry} onChange={(chemistry) => change({ ...bank, chemistry })} />
      <Choose label="Blocks" choices={LAYOUT_CHOICES} value={bank.layout} onChange={(layout) => change({ ...bank, layout })} />
      <NumberField label="Whole bank" unit="Ah" value={bank.capacity} min={10} max={3000} onChange={(capacity) => change({ ...bank, capacity })} />
    </Group>
  );
}

export function NewJob() {
  const router = useRouter();
  const [id] = useState(() => crypto.randomUUID());
  const [nickname, setNickname] = useState('');
  const [words, setWords] = useState('');
  const [codes, setCodes] = useState<readonly Complaint[]>([]);
  const [c, setChoices] = useState<MotorhomeChoices>(USUAL_MOTORHOME);
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const set = (part: Partial<MotorhomeChoices>) => setChoices((old) => ({ ...old, ...part }));
  const drawn = useDeferredValue(c);
  const rig = useMemo(() => motorhome('preview', 'the new rig', drawn), [drawn]);
  const solenoid = c.link !== 'diode';
  const senses = c.link === 'bidirectional' || c.link === 'timed-window';
  const ready = nickname.trim() !== '' && (codes.length > 0 || words.trim() !== '');
  const lacks = nickname.trim() === '' ? 'Give the rig a nickname' : 'Say what the owner complains of';

  const open = async () => {
    setBusy(true);
    setProblem(undefined);
    try {
      const said = words.trim() === '' ? codes.map((k) => COMPLAINTS[k]).join('. ') : words.trim();
      const { number } = await postOpenJob({ id, nickname: nickname.trim(), complaint: { codes: [...codes], words: said.slice(0, 400) }, rig: { family: 'motorhome', choices: c } });
      router.push(`/jobs/${number}/readings`);
    } catch (e) {
      setProblem((e as ApiError).message);
      setBusy(false);
    }
  };

  return (
    <div className="newjob">
      <header className="top">
        <Link href="/" className="bx" aria-label="Back to the jobs">
          <ArrowLeft size={20} aria-hidden="true" />
          Jobs
        </Link>
        <div className="job">
          <span className="no">New job</span>
          <span className="nm">
            <b>{nickname.trim() || 'no name yet'}</b>
            {rig.kind}
          </span>
        </div>
      </header>
      <section className="stripbox" aria-label="The rig as chosen">
        <div className="pan">
          <LoomStrip rig={rig} faces={{}} onPick={nothing} />
        </div>
      </section>
      <main className="newform">
        <Group title="What the owner says">
          <label className="field">
            <span>Rig’s nickname, no customer names</span>
            <input className="input" value={nickname} maxLength={40} onChange={(e) => setNickname(e.target.value)} autoComplete="off" />
          </label>
          <div className="ticks" role="group" aria-label="Complaint">
            {(Object.keys(COMPLAINTS) as Complaint[]).map((k) => (
              <label key={k} className={codes.includes(k) ? 'on' : ''}>
                <input type="checkbox" checked={codes.includes(k)} onChange={(e) => setCodes(e.target.checked ? [...codes, k] : codes.filter((x) => x !== k))} />
                {COMPLAINTS[k]}
              </label>
            ))}
          </div>
          <label className="field">
            <span>In the owner’s words</span>
            <textarea className="textarea" rows={2} maxLength={400} value={words} onChange={(e) => setWords(e.target.value)} />
          </label>
        </Group>
        <div>
          <Group title="Coach">
            <Choose label="Engine" choices={ENGINE_CHOICES} value={c.engineAt} onChange={(engineAt) => set({ engineAt })} />
            <Choose
              label="System"
              choices={
                [
                  { id: 12, label: '12 V' },
                  { id: 24, label: '24 V' },
                ] as const
              }
              value={c.nominalVolts}
              onChange={(nominalVolts) => set({ nominalVolts })}
            />
            <NumberField label="Length" unit="ft" value={Math.round(c.length / FEET)} min={14} max={49} onChange={(feet) => set({ length: feet * FEET })} />
            <NumberField label="Alternator rating" unit="A" value={c.alternatorAmps} min={20} max={600} onChange={(alternatorAmps) => set({ alternatorAmps })} />
          </Group>
          <Group title="What links the banks">
            <Choose label="Link" choices={LINK_CHOICES} value={c.link} onChange={(link) => set({ link })} />
            <p className="quiet">{LINK_CHOICES.find((l) => l.id === c.link)!.says}.</p>
            {solenoid && (
              <Choose
                label="Boost switch"
                choices={
                  [
                    { id: true, label: 'On the dash' },
                    { id: false, label: 'None' },
                  ] as const
                }
                value={c.boost}
                onChange={(boost) => set({ boost })}
              />
            )}
            {senses && <Choose label="Coach sense wire" choices={SENSE_CHOICES} value={c.senseAt} onChange={(senseAt) => set({ senseAt })} />}
            {c.coach.chemistry === 'lfp' && (c.link === 'one-way' || c.link === 'bidirectional') && (
              <p className="warn-line">An LFP bank rests where lead-acid is charging: a link by volts may stay closed until it is nearly flat.</p>
            )}
          </Group>
        </div>
        <div>
          <Bank title="Coach bank" bank={c.coach} change={(coach) => set({ coach })} />
          <Bank title="Chassis bank" bank={c.chassis} change={(chassis) => set({ chassis })} />
          <Group title="House side">
            <Choose label="Charger" choices={CHARGER_CHOICES} value={c.charger} onChange={(charger) => set({ charger })} />
            <NumberField label="Charger output" unit="A" value={c.chargerAmps} min={2} max={300} onChange={(chargerAmps) => set({ chargerAmps })} />
            <Choose label="Disconnect" choices={DISCONNECT_CHOICES} value={c.disconnect} onChange={(disconnect) => set({ disconnect })} />
            <Choose
              label="Solar"
              choices={
                [
                  { id: false, label: 'None' },
                  { id: true, label: 'On the roof' },
                ] as const
              }
              value={c.solar}
              onChange={(solar) => set({ solar })}
            />
            <Choose
              label="Generator"
              choices={
                [
                  { id: false, label: 'None' },
                  { id: true, label: 'On board' },
                ] as const
              }
              value={c.generator}
              onChange={(generator) => set({ generator })}
            />
          </Group>
        </div>
      </main>
      <footer className="newfoot">
        {problem ? (
          <p role="alert" className="warn-line">
            {problem} Nothing you entered is lost: press again.
          </p>
        ) : (
          <p className="quiet">
            {rig.parts.length} parts, {rig.conductors.length} conductors, {rig.probes.length} probes. Lengths and gauges are usual ones, marked assumed: edit what you measure.
          </p>
        )}
        <button type="button" className={`bx${ready && !busy ? ' go' : ' off'}`} aria-disabled={!ready || busy} onClick={() => ready && !busy && void open()}>
          {busy ? 'Opening' : ready ? 'Open the job' : lacks}
          {ready && !busy && <ArrowRight size={22} aria-hidden="true" />}
        </button>
      </footer>
    </div>
  );
}
