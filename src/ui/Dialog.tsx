'use client';
/** A dialog on paper: full screen on a phone, a sheet over the bench elsewhere. Escape closes it. */
import { clsx } from 'clsx';
import { X } from 'lucide-react';
import { useEffect, useRef, type ReactNode } from 'react';

/** On the page while a dialog is over it: a style that asked what the page holds would be asked at every change of it. */
const DIALOG_OPEN = 'dialog-open';

export function Sheet({
  title,
  onClose,
  children,
  wide = false,
}: {
  title: string;
  onClose(): void;
  children: ReactNode;
  wide?: boolean;
}) {
  const ref = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const dialog = ref.current!;
    if (!dialog.open) dialog.showModal();
    const behind = document.documentElement;
    behind.classList.add(DIALOG_OPEN);
    return () => {
      dialog.close();
      // One that took its place holds the page by now.
      if (!document.querySelector('dialog[open]')) behind.classList.remove(DIALOG_OPEN);
    };
  }, []);
  return (
    <dialog
      ref={ref}
      className={clsx(
        'paper',
        'fixed grid place-items-center top-0 right-0 bottom-0 left-0',
        'max-w-none max-h-none w-full h-full m-auto p-0 bg-transparent',
      )}
      onCancel={(e) => (e.preventDefault(), onClose())}
      onClick={(e) => e.target === ref.current && onClose()}
      aria-label={title}
    >
      <div
        className={clsx(
          'flex flex-col',
          'border-2 border-ink rounded bg-card',
          'text-ink',
          'is-wide:w-full max-phone:h-dvh max-phone:max-h-none max-phone:border-0 max-phone:rounded-none',
          `paper-box${wide ? ' wide' : ''}`,
        )}
      >
        <header className="flex items-center justify-between pr-2 pl-4 pt-2 pb-1.5 border-b-2 border-ink">
          <h2 className="font-cond font-bold text-title leading-close">{title}</h2>
          <button type="button" className="grid place-items-center w-11 h-11" onClick={onClose} aria-label="Close">
            <X size={22} aria-hidden="true" />
          </button>
        </header>
        <div
          className={clsx(
            'grid gap-2.5',
            'px-4 pt-3 pb-3.5 overflow-y-auto',
            'text-note leading-tight',
            'max-phone:flex-1 max-phone:content-start',
          )}
        >
          {children}
        </div>
      </div>
    </dialog>
  );
}
