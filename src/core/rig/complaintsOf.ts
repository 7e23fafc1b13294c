/** Which of the usual complaints can be of a rig: one about a fridge only where there is one. */
import { COMPLAINT_OF, COMPLAINTS, type Complaint } from '../parts/complaints';
import type { Rig } from './schema';
import { has } from './value';

export const complaintsOf = (rig: Pick<Rig, 'parts'>): Complaint[] =>
  (Object.keys(COMPLAINTS) as Complaint[]).filter((c) => {
    const of = COMPLAINT_OF[c];
    return of === undefined || has(rig, of);
  });
