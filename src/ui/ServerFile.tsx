'use client';
/** A file the server makes of the job. What waits on this device goes there first, so that the newest is in it. */
import { FileDown } from 'lucide-react';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { useJobPage } from './shell/jobPage';

export function ServerFile({
  href,
  icon = <FileDown size={20} aria-hidden="true" />,
  children,
}: {
  href: string;
  icon?: ReactNode;
  children: ReactNode;
}) {
  const { waiting } = useJobPage();
  const link = useRef<HTMLAnchorElement>(null);
  const [asked, setAsked] = useState(false);
  useEffect(() => {
    if (asked && waiting === 0) link.current?.click();
  }, [asked, waiting]);
  return (
    <a
      ref={link}
      className="bx"
      href={href}
      download
      onClick={(e) => {
        if (waiting > 0) e.preventDefault();
        setAsked(waiting > 0);
      }}
    >
      {icon} {asked ? 'Sending what you entered first …' : children}
    </a>
  );
}
