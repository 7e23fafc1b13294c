import { redirect } from 'next/navigation';
import { Suspense } from 'react';
import { currentActor } from '@/server/http';
import { Calculators } from './Calculators';
import '../calculators.css';

export const metadata = { title: 'Calculators' };

export default async function Page() {
  if (!(await currentActor())) redirect('/sign-in');
  return (
    <Suspense>
      <Calculators />
    </Suspense>
  );
}
