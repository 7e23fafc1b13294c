'use client';
/** A file the server makes when it is asked: with a word that it is being made, a way to stop, and why if it was not. */
import { FileDown } from 'lucide-react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { downloadBlob } from './download';
import { useFetchFile } from './fetchFile';

interface MadeFileProps {
  href: string;
  icon?: ReactNode;
  /** What must be done first: the file is asked for once it is. */
  first?: { is: boolean; says: string };
  children: ReactNode;
}

const READY = { is: true, says: '' };

export function MadeFile({
  href,
  icon = <FileDown size={20} aria-hidden="true" />,
  first = READY,
  children,
}: MadeFileProps) {
  const fetchFile = useFetchFile();
  const [asked, setAsked] = useState(false);
  const [problem, setProblem] = useState<string>();
  const stop = useRef<AbortController>(undefined);
  useEffect(() => {
    if (!asked || !first.is) return;
    const controller = new AbortController();
    stop.current = controller;
    fetchFile(href, controller.signal)
      .then(({ name, blob }) => {
        if (!controller.signal.aborted) downloadBlob(name, blob);
      })
      .catch((e: Error) => {
        if (!controller.signal.aborted) setProblem(e.message);
      })
      .finally(() => {
        if (!controller.signal.aborted) setAsked(false);
      });
    return () => controller.abort();
  }, [asked, first.is, href, fetchFile]);
  if (asked)
    return (
      <span className="join" role="status">
        <span className="btn btn-dash join-item">
          <span className="loading loading-spinner loading-sm" aria-hidden="true" />
          {first.is ? 'Being made' : first.says}
        </span>
        <button
          type="button"
          className="btn join-item"
          onClick={() => {
            stop.current?.abort();
            setAsked(false);
          }}
        >
          Stop
        </button>
      </span>
    );
  return (
    <>
      <button
        type="button"
        className="btn"
        onClick={() => {
          setProblem(undefined);
          setAsked(true);
        }}
      >
        {icon} {children}
      </button>
      {problem && (
        <span role="alert" className="text-fail basis-full text-sm font-semibold">
          {problem}
        </span>
      )}
    </>
  );
}
