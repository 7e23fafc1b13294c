'use client';
/** Pictures of a step: the lug before it is covered, the mark on the nut. */
import { Camera } from 'lucide-react';
import { useState } from 'react';
import { useJobFile, useEntries } from '../shell/jobPage';

export function StepPhotos({
  step,
  title,
  locked,
  shown,
}: {
  step: string;
  title: string;
  locked: boolean;
  shown: boolean;
}) {
  const { job, words } = useJobFile();
  const { sendPhoto } = useEntries();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string>();
  const mine = job.photos.filter((p) => p.step === step && !p.retracted);
  if (!shown && mine.length === 0) return null;
  const take = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    setProblem(undefined);
    try {
      await sendPhoto(file, words(title).slice(0, 160), step);
    } catch (e) {
      setProblem(`${file.name}: ${(e as Error).message}`);
    } finally {
      setBusy(false);
    }
  };
  return (
    <span className="stepphotos flex flex-wrap items-center gap-1.5 mt-1">
      {mine.map((p) => (
        <a key={p.id} href={`/api/jobs/${job.number}/photos/${p.sha256}`} target="_blank" rel="noreferrer">
          {/* eslint-disable-next-line @next/next/no-img-element -- signed-in only, named by its content: nothing to optimise */}
          <img
            className="w-14 h-10.5 border border-ink rounded object-cover"
            src={`/api/jobs/${job.number}/photos/${p.sha256}`}
            alt={p.caption || 'photo of the step'}
            width={56}
            height={42}
            loading="lazy"
          />
        </a>
      ))}
      {!locked && shown && (
        <label className="btn btn-sm file">
          <Camera size={16} aria-hidden="true" />
          {busy ? 'Sending …' : 'Photo'}
          <input
            type="file"
            accept="image/*"
            aria-label={`Photo of step: ${words(title)}`}
            disabled={busy}
            onChange={(e) => void take(e.target.files?.[0])}
          />
        </label>
      )}
      {problem && <em role="alert">{problem}</em>}
    </span>
  );
}
