import 'server-only';
import { correct, swapEyes, undo } from './corrections';
import { setClock, setLights, stillHere } from './device';
import { handOver } from './handOver';
import { confirmLens, putBack, putOnTrials, recordBroughtIn, recordWorn, takeOff } from './lensesOn';
import { addInstrument, endInstrument, readSettling } from './instruments';
import { chooseLens, recordOnEye, recordRefraction } from './measure';
import { sign } from './prescribe';
import { decideKind } from './advice';
import { acknowledgeAlert, endStop, openReferral, passStop, recordFindings, recordHistory, recordReferralStep } from './health';
import { readPicture, recordPicture } from './pictures';
import { saveCareProduct } from './careProducts';
import { cancelImport, readImport, readImportFaults, recordImport, takeImport } from './catalogueImport';
import { changeHouseList, endFamily, exportCatalogue, readFamily, readLibrary, saveFamily } from './library';
import { changeSetting, readSettings } from './settings';
import { addStaff, endStaff, readStaff, resetPassword } from './staff';
import { hastenOrder, placeOrder } from './supply';
import { recordAttempt, recordTopic, signOffLesson, startLesson } from './teach';
import { closeVisit, openVisit, readToday, readVisit, saveDraft } from './visits';
import { createWearer, readWearer, searchWearers, updateWearer } from './wearers';

/** Every use case by its name: what the application can do, and all that a request can ask for. */
export const SERVICES = {
  readToday,
  searchWearers,
  readWearer,
  createWearer,
  updateWearer,
  openVisit,
  closeVisit,
  readVisit,
  saveDraft,
  recordHistory,
  recordFindings,
  acknowledgeAlert,
  passStop,
  endStop,
  openReferral,
  recordReferralStep,
  recordPicture,
  readPicture,
  decideKind,
  recordRefraction,
  putOnTrials,
  recordBroughtIn,
  recordWorn,
  confirmLens,
  takeOff,
  putBack,
  recordOnEye,
  chooseLens,
  addInstrument,
  endInstrument,
  readSettling,
  correct,
  swapEyes,
  undo,
  sign,
  startLesson,
  recordAttempt,
  recordTopic,
  signOffLesson,
  handOver,
  placeOrder,
  hastenOrder,
  readLibrary,
  readFamily,
  exportCatalogue,
  saveFamily,
  endFamily,
  changeHouseList,
  recordImport,
  readImport,
  readImportFaults,
  takeImport,
  cancelImport,
  readSettings,
  changeSetting,
  saveCareProduct,
  readStaff,
  addStaff,
  endStaff,
  resetPassword,
  setLights,
  stillHere,
  setClock,
} as const;
export type ServiceName = keyof typeof SERVICES;
export const isServiceName = (name: string): name is ServiceName => Object.hasOwn(SERVICES, name);
