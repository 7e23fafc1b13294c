'use client';
/** Photos of the job: taken or chosen, shown, captioned, taken back. Only the picture is kept. */
import { Camera, Undo2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { useJobFile, useEntries } from '../shell/jobPage';
import { Sheet } from '../Dialog';
import { useDraft } from '../draft';

export function Photos() {
  const { job } = useJobFile();
  const { send, sendPhoto } = useEntries();
  const input = useRef<HTMLInputElement>(null);
  const [caption, setCaption, forget] = useDraft(`${job.number}/photo`, '');
  const [busy, setBusy] = useState(0);
  const [problem, setProblem] = useState<string>();
  const [large, setLarge] = useState<string>();
  const shown = job.photos.filter((p) => !p.retracted);
  const take = async (files: FileList | null) => {
    setProblem(undefined);
    for (const file of files ?? []) {
      setBusy((n) => n + 1);
      try {
        await sendPhoto(file, caption.trim());
      } catch (e) {
        setProblem(`${file.name}: ${(e as Error).message}`);
      } finally {
        setBusy((n) => n - 1);
      }
    }
    forget();
    if (input.current) input.current.value = '';
  };
  return (
    <section className="grp-box col-span-full" aria-label="Photos">
      <h2 className="font-cond font-bold text-figure leading-none">Photos</h2>
      <div className="grid grid-cols-end items-end gap-2">
        <label className="field">
          <span>What it shows</span>
          <input
            className="input"
            maxLength={160}
            value={caption}
            onChange={(e) => setCaption(e.target.value)}
            placeholder="Link box as found"
          />
        </label>
        <label className={`btn file${busy > 0 ? ' btn-dash' : ''}`}>
          <Camera size={20} aria-hidden="true" />
          {busy > 0 ? 'Sending …' : 'Add a photo'}
          <input
            ref={input}
            type="file"
            accept="image/*"
            multiple
            onChange={(e) => void take(e.target.files)}
            disabled={busy > 0}
          />
        </label>
      </div>
      {problem && (
        <p role="alert" className="alert alert-error alert-outline">
          {problem}
        </p>
      )}
      {shown.length === 0 && busy === 0 && (
        <p className="quiet">
          The link box, the label to order by, the corrosion. Where a photo was taken is not kept.
        </p>
      )}
      <div className="photos grid gap-2.5">
        {shown.map((p) => (
          <figure className="overflow-hidden border border-ink rounded bg-card" key={p.id}>
            <button
              type="button"
              className="block w-full border-b border-ink"
              onClick={() => setLarge(p.id)}
              aria-label={`Larger: ${p.caption || 'photo'}`}
            >
              {/* eslint-disable-next-line @next/next/no-img-element -- signed-in only, named by its content: nothing to optimise */}
              <img
                className="block w-full h-27.5 object-cover"
                src={`/api/jobs/${job.number}/photos/${p.sha256}`}
                alt={p.caption || 'photo of the rig'}
                width={p.width}
                height={p.height}
                loading="lazy"
              />
            </button>
            <figcaption className="grid items-center pl-2 text-note leading-close">
              <span>{p.caption || 'no caption'}</span>
              <button
                type="button"
                className="grid place-items-center w-11 h-11"
                aria-label={`Take back ${p.caption || 'this photo'}`}
                onClick={() => send('photo.retract', { id: p.id })}
              >
                <Undo2 size={18} aria-hidden="true" />
              </button>
            </figcaption>
          </figure>
        ))}
      </div>
      {large !== undefined && (
        <Sheet title={shown.find((p) => p.id === large)?.caption || 'Photo'} onClose={() => setLarge(undefined)} wide>
          {shown
            .filter((p) => p.id === large)
            .map((p) => (
              // eslint-disable-next-line @next/next/no-img-element -- as above
              <img
                key={p.id}
                className="large"
                src={`/api/jobs/${job.number}/photos/${p.sha256}`}
                alt={p.caption || 'photo of the rig'}
                width={p.width}
                height={p.height}
              />
            ))}
        </Sheet>
      )}
    </section>
  );
}
