'use client';
/** A dialog on paper: full screen on a phone, a sheet over the bench elsewhere. Escape closes it. */
import { X } from 'lucide-react';
import { useEffect, useRef, type ReactNode } from 'react';

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
    return () => dialog.close();
  }, []);
  return (
    <dialog
      ref={ref}
      className="paper"
      onCancel={(e) => (e.preventDefault(), onClose())}
      onClick={(e) => e.target === ref.current && onClose()}
      aria-label={title}
    >
      <div className={`paper-box${wide ? ' wide' : ''}`}>
        <header>
          <h2>{title}</h2>
          <button type="button" className="icon-btn" onClick={onClose} aria-label="Close">
            <X size={22} aria-hidden="true" />
          </button>
        </header>
        <div className="paper-body">{children}</div>
      </div>
    </dialog>
  );
}
