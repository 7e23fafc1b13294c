import Link from 'next/link';

/** An address there is nothing at. */
export default function NotFound() {
  return (
    <main className="plain">
      <h1>Nothing here</h1>
      <p>There is no such page. A job has a number, like 1042: look for it on the board.</p>
      <Link className="btn" href="/">
        All jobs
      </Link>
    </main>
  );
}
