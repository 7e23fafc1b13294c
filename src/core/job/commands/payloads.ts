/**
 * The payload of every command by its type. Apart from what commands do, so that a page that shows a job does not
 * carry the schemas.
 */
import { PAYLOAD_KIT } from '../payloadKit';
import { payload as intakeSet } from './intake/intakeSet';
import { payload as identitySet } from './intake/identitySet';
import { payload as visitLink } from './intake/visitLink';
import { payload as meterChoose } from './state/meterChoose';
import { payload as photoKeep } from './photo/photoKeep';
import { payload as photoRetract } from './photo/photoRetract';
import { payload as photoRestore } from './photo/photoRestore';
import { payload as piecesAdd } from './rig/piecesAdd';
import { payload as piecesRemove } from './rig/piecesRemove';
import { payload as probeAdd } from './rig/probeAdd';
import { payload as probeRetire } from './rig/probeRetire';
import { payload as partEdit } from './rig/partEdit';
import { payload as conductorEdit } from './rig/conductorEdit';
import { payload as towEdit } from './rig/towEdit';
import { payload as changeWithdraw } from './rig/changeWithdraw';
import { payload as stateSet } from './state/stateSet';
import { payload as leadMove } from './state/leadMove';
import { payload as readingKeep } from './reading/readingKeep';
import { payload as readingRetract } from './reading/readingRetract';
import { payload as readingRestore } from './reading/readingRestore';
import { payload as noteAdd } from './observation/noteAdd';
import { payload as observationKeep } from './observation/observationKeep';
import { payload as noteRetract } from './observation/noteRetract';
import { payload as noteRestore } from './observation/noteRestore';
import { payload as verdictDeclare } from './verdict/verdictDeclare';
import { payload as verdictWithdraw } from './verdict/verdictWithdraw';
import { payload as approvalRecord } from './approval/approvalRecord';
import { payload as approvalWithdraw } from './approval/approvalWithdraw';
import { payload as repairRecord } from './repair/repairRecord';
import { payload as repairWithdraw } from './repair/repairWithdraw';
import { payload as usageSet } from './option/usageSet';
import { payload as optionChoose } from './option/optionChoose';
import { payload as optionWithdraw } from './option/optionWithdraw';
import { payload as buildTick } from './build/buildTick';
import { payload as buildDone } from './build/buildDone';
import { payload as buildUndone } from './build/buildUndone';
import { payload as buildOrder } from './build/buildOrder';
import { payload as buildFinish } from './build/buildFinish';
import { payload as waiverRecord } from './waiver/waiverRecord';
import { payload as waiverWithdraw } from './waiver/waiverWithdraw';
import { payload as checkRecord } from './check/checkRecord';
import { payload as checkRetract } from './check/checkRetract';
import { payload as checkRestore } from './check/checkRestore';
import { payload as recordSign } from './record/recordSign';
import { payload as recordReopen } from './record/recordReopen';
import { payload as followUpSet } from './desk/followUpSet';
import { payload as bookingSet } from './desk/bookingSet';
import { payload as planChangeSet } from './build/planChangeSet';
import { payload as logSet } from './desk/logSet';
import { payload as huntSet } from './desk/huntSet';
import { payload as statusSet } from './desk/statusSet';

export const PAYLOADS = {
  'intake.set': intakeSet(PAYLOAD_KIT),
  'identity.set': identitySet(PAYLOAD_KIT),
  'visit.link': visitLink(PAYLOAD_KIT),
  'meter.choose': meterChoose(PAYLOAD_KIT),
  'photo.keep': photoKeep(PAYLOAD_KIT),
  'photo.retract': photoRetract(PAYLOAD_KIT),
  'photo.restore': photoRestore(PAYLOAD_KIT),
  'pieces.add': piecesAdd(PAYLOAD_KIT),
  'pieces.remove': piecesRemove(PAYLOAD_KIT),
  'probe.add': probeAdd(PAYLOAD_KIT),
  'probe.retire': probeRetire(PAYLOAD_KIT),
  'part.edit': partEdit(PAYLOAD_KIT),
  'conductor.edit': conductorEdit(PAYLOAD_KIT),
  'tow.edit': towEdit(PAYLOAD_KIT),
  'change.withdraw': changeWithdraw(PAYLOAD_KIT),
  'state.set': stateSet(PAYLOAD_KIT),
  'lead.move': leadMove(PAYLOAD_KIT),
  'reading.keep': readingKeep(PAYLOAD_KIT),
  'reading.retract': readingRetract(PAYLOAD_KIT),
  'reading.restore': readingRestore(PAYLOAD_KIT),
  'note.add': noteAdd(PAYLOAD_KIT),
  'observation.keep': observationKeep(PAYLOAD_KIT),
  'note.retract': noteRetract(PAYLOAD_KIT),
  'note.restore': noteRestore(PAYLOAD_KIT),
  'verdict.declare': verdictDeclare(PAYLOAD_KIT),
  'verdict.withdraw': verdictWithdraw(PAYLOAD_KIT),
  'approval.record': approvalRecord(PAYLOAD_KIT),
  'approval.withdraw': approvalWithdraw(PAYLOAD_KIT),
  'repair.record': repairRecord(PAYLOAD_KIT),
  'repair.withdraw': repairWithdraw(PAYLOAD_KIT),
  'usage.set': usageSet(PAYLOAD_KIT),
  'option.choose': optionChoose(PAYLOAD_KIT),
  'option.withdraw': optionWithdraw(PAYLOAD_KIT),
  'build.tick': buildTick(PAYLOAD_KIT),
  'build.done': buildDone(PAYLOAD_KIT),
  'build.undone': buildUndone(PAYLOAD_KIT),
  'build.order': buildOrder(PAYLOAD_KIT),
  'build.finish': buildFinish(PAYLOAD_KIT),
  'waiver.record': waiverRecord(PAYLOAD_KIT),
  'waiver.withdraw': waiverWithdraw(PAYLOAD_KIT),
  'check.record': checkRecord(PAYLOAD_KIT),
  'check.retract': checkRetract(PAYLOAD_KIT),
  'check.restore': checkRestore(PAYLOAD_KIT),
  'record.sign': recordSign(PAYLOAD_KIT),
  'record.reopen': recordReopen(PAYLOAD_KIT),
  'followUp.set': followUpSet(PAYLOAD_KIT),
  'booking.set': bookingSet(PAYLOAD_KIT),
  'planChange.set': planChangeSet(PAYLOAD_KIT),
  'log.set': logSet(PAYLOAD_KIT),
  'hunt.set': huntSet(PAYLOAD_KIT),
  'job.set-status': statusSet(PAYLOAD_KIT),
} as const;
