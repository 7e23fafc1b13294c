/** Every command by its type: what it does. A new command is a file beside and a row here and in payloads.ts. */
import type { CommandType, Payload } from '../command';
import type { CommandDefinition } from '../commandDefinition';
import { command as intakeSet } from './intake/intakeSet';
import { command as identitySet } from './intake/identitySet';
import { command as visitLink } from './intake/visitLink';
import { command as meterChoose } from './state/meterChoose';
import { command as photoKeep } from './photo/photoKeep';
import { command as photoRetract } from './photo/photoRetract';
import { command as photoRestore } from './photo/photoRestore';
import { command as piecesAdd } from './rig/piecesAdd';
import { command as piecesRemove } from './rig/piecesRemove';
import { command as probeAdd } from './rig/probeAdd';
import { command as probeRetire } from './rig/probeRetire';
import { command as partEdit } from './rig/partEdit';
import { command as conductorEdit } from './rig/conductorEdit';
import { command as towEdit } from './rig/towEdit';
import { command as changeWithdraw } from './rig/changeWithdraw';
import { command as stateSet } from './state/stateSet';
import { command as leadMove } from './state/leadMove';
import { command as readingKeep } from './reading/readingKeep';
import { command as readingRetract } from './reading/readingRetract';
import { command as readingRestore } from './reading/readingRestore';
import { command as noteAdd } from './observation/noteAdd';
import { command as observationKeep } from './observation/observationKeep';
import { command as noteRetract } from './observation/noteRetract';
import { command as noteRestore } from './observation/noteRestore';
import { command as verdictDeclare } from './verdict/verdictDeclare';
import { command as verdictWithdraw } from './verdict/verdictWithdraw';
import { command as approvalRecord } from './approval/approvalRecord';
import { command as approvalWithdraw } from './approval/approvalWithdraw';
import { command as repairRecord } from './repair/repairRecord';
import { command as repairWithdraw } from './repair/repairWithdraw';
import { command as usageSet } from './option/usageSet';
import { command as optionChoose } from './option/optionChoose';
import { command as optionWithdraw } from './option/optionWithdraw';
import { command as buildTick } from './build/buildTick';
import { command as buildDone } from './build/buildDone';
import { command as buildUndone } from './build/buildUndone';
import { command as buildOrder } from './build/buildOrder';
import { command as buildFinish } from './build/buildFinish';
import { command as waiverRecord } from './waiver/waiverRecord';
import { command as waiverWithdraw } from './waiver/waiverWithdraw';
import { command as checkRecord } from './check/checkRecord';
import { command as checkRetract } from './check/checkRetract';
import { command as checkRestore } from './check/checkRestore';
import { command as recordSign } from './record/recordSign';
import { command as recordReopen } from './record/recordReopen';
import { command as followUpSet } from './desk/followUpSet';
import { command as bookingSet } from './desk/bookingSet';
import { command as planChangeSet } from './build/planChangeSet';
import { command as logSet } from './desk/logSet';
import { command as huntSet } from './desk/huntSet';
import { command as statusSet } from './desk/statusSet';

export const COMMANDS: { readonly [T in CommandType]: CommandDefinition<Payload<T>> } = {
  'intake.set': intakeSet,
  'identity.set': identitySet,
  'visit.link': visitLink,
  'meter.choose': meterChoose,
  'photo.keep': photoKeep,
  'photo.retract': photoRetract,
  'photo.restore': photoRestore,
  'pieces.add': piecesAdd,
  'pieces.remove': piecesRemove,
  'probe.add': probeAdd,
  'probe.retire': probeRetire,
  'part.edit': partEdit,
  'conductor.edit': conductorEdit,
  'tow.edit': towEdit,
  'change.withdraw': changeWithdraw,
  'state.set': stateSet,
  'lead.move': leadMove,
  'reading.keep': readingKeep,
  'reading.retract': readingRetract,
  'reading.restore': readingRestore,
  'note.add': noteAdd,
  'observation.keep': observationKeep,
  'note.retract': noteRetract,
  'note.restore': noteRestore,
  'verdict.declare': verdictDeclare,
  'verdict.withdraw': verdictWithdraw,
  'approval.record': approvalRecord,
  'approval.withdraw': approvalWithdraw,
  'repair.record': repairRecord,
  'repair.withdraw': repairWithdraw,
  'usage.set': usageSet,
  'option.choose': optionChoose,
  'option.withdraw': optionWithdraw,
  'build.tick': buildTick,
  'build.done': buildDone,
  'build.undone': buildUndone,
  'build.order': buildOrder,
  'build.finish': buildFinish,
  'waiver.record': waiverRecord,
  'waiver.withdraw': waiverWithdraw,
  'check.record': checkRecord,
  'check.retract': checkRetract,
  'check.restore': checkRestore,
  'record.sign': recordSign,
  'record.reopen': recordReopen,
  'followUp.set': followUpSet,
  'booking.set': bookingSet,
  'planChange.set': planChangeSet,
  'log.set': logSet,
  'hunt.set': huntSet,
  'job.set-status': statusSet,
};
