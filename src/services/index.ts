import 'server-only';
import { answerAftercare, endAftercare, recordAdverseEvent, returnToWear } from './aftercare/commands';
import { bookAppointment, markAppointment, moveAppointment, sayLate, undoAppointment } from './appointment/commands';
import { findFree, readAppointment, readDiary, readToday } from './appointment/queries';
import { changePractice } from './practice/commands';
import { addRoom, changeRoom, setClosedDay, setOpeningHours } from './room/commands';
import { readRooms } from './room/queries';
import { importTrials, importWearers } from './list/commands';
import { addTask, changeTask, finishTask } from './task/commands';
import { readTasks } from './task/queries';
import { correct, swapEyes, undo } from './correction/commands';
import { setClock, setLights, stillHere } from './device/commands';
import { handOver } from './handOver/commands';
import { confirmLens, putBack, putOnTrials, recordBroughtIn, takeOff } from './lensOnEye/commands';
import { answerWorn } from './lensOnEye/wornNow';
import { addInstrument, endInstrument } from './instrument/commands';
import { readSettling } from './lensOnEye/queries';
import { chooseLens, recordOnEye } from './lensOnEye/readings';
import { recordRefraction } from './refraction/commands';
import { recordCopy, sign } from './prescription/commands';
import { decideKind } from './decision/commands';
import { acknowledgeAlert, recordHistory } from './history/commands';
import { endStop, overrideStop } from './stop/commands';
import { openReferral, recordReferralStep } from './referral/commands';
import { answerRequest, matchRequest, recordRequest } from './request/commands';
import { endCopyRequest, recordCopyRequest } from './copyRequest/commands';
import { readRequests } from './request/queries';
import { keepOutsidePrescription } from './exchange/commands';
import { exportPrescription, readPrescriptionCopy, readOutsidePrescriptions, readPrescriptionFile } from './exchange/queries';
import { triageRedEye } from './triage/commands';
import { recordFindings, recordLesion } from './finding/commands';
import { exportPerson, readTimeline } from './personFile/queries';
import { readMeasurementFile } from './measurement/queries';
import { readPicture } from './picture/queries';
import { recordPicture, takePictures } from './picture/commands';
import { recordCarePair, saveCareProduct } from './careProduct/commands';
import { prescribeCare } from './careSystem/commands';
import { cancelImport, recordImport, takeImport } from './catalogueImport/commands';
import { readImport, readImportFaults } from './catalogueImport/queries';
import { changeHouseList } from './houseList/commands';
import { endFamily, saveFamily } from './family/commands';
import { exportCatalogue, readFamily, readFamilies, readLibrary } from './family/queries';
import { changeSetting } from './setting/commands';
import { readSettings } from './setting/queries';
import { recordGuidedCylinder } from './lensOnEye/guided';
import { addSetLenses, disinfectLenses, endSetLens, putOnSetLenses } from './diagnosticSet/commands';
import { readSetLens, readSets } from './diagnosticSet/queries';
import { countTrials, discardTrials, receiveTrials } from './trialStock/commands';
import { endTrialLoan, lendTrials } from './trialStock/loans';
import { exportRestock, readRestock, recordRestock, setTrialLevels } from './trialStock/levels';
import { readDrawer, readTrialBox, readTrialMovements } from './trialStock/queries';
import { addStaff, changeStaff, endStaff, resetPassword } from './staff/commands';
import { readStaff } from './staff/queries';
import { hastenOrder, placeOrder } from './order/commands';
import { cancelOrder, openClaim, recordArrived, recordTelephoned, stepClaim } from './order/desk';
import { readBag } from './order/bag';
import { readBox, readOrder, readOrderEvents, readOrders } from './order/queries';
import { renewSupplierSecret, saveSupplier } from './supplier/commands';
import { readSuppliers } from './supplier/queries';
import { readFigures, readLessonFigures } from './figures/queries';
import { readCoverage } from './coverage/queries';
import { chooseContact, markMessage, writeRecallMessages, writeReminder } from './outbox/commands';
import { readMessage, readOutbox } from './outbox/queries';
import { liftRecall, openRecall, recordRecallCall } from './lotRecall/commands';
import { readRecall, readRecalls } from './lotRecall/queries';
import { orderTrials } from './order/trials';
import { recordLoss, recordReorderCall, reorderLenses, withdrawLoss } from './reorder/commands';
import { bridgeWithTrials, withdrawBridge } from './reorder/bridge';
import { readReorder } from './reorder/queries';
import { readDue } from './runway/queries';
import { handOverBoxes, recordReceipt } from './order/receipts';
import {
  recordAttempt,
  recordLessonSight,
  recordTopic,
  recordTopicsAgain,
  setLessonWay,
  signOffLesson,
  startLesson,
  stopLesson,
  turnLessonClock,
  instructLesson,
} from './lesson/commands';
import { readLessonsNow } from './lesson/now';
import { decideNearWay, recordNearFindings, recordDriving } from './near/commands';
import { keepPairChange, recordPairReading } from './pair/commands';
import { answerExercise, openLessonScreen, readLessonScreen, showLessonPage } from './lesson/screen';
import { closeVisit, openVisit, saveDraft } from './visit/commands';
import { changeVisit, recordExamined } from './visit/kindAndFee';
import { readNewer, readSession, readVisit } from './visit/queries';
import { createWearer, updateWearer } from './wearer/commands';
import { mergeWearers, undoMerge } from './wearerMerge/commands';
import { compareWearers, readMerges } from './wearerMerge/queries';
import { readWearer, searchWearers } from './wearer/queries';
import { checkLanguage, giveTakeHome } from './takeHome/commands';
import { readHomePage, readSheet, readTakeHome } from './takeHome/queries';
import { endWearerLink } from './wearerLink/commands';

/** Everything that changes something. */
export const COMMANDS = {
  importWearers,
  importTrials,
  bookAppointment,
  moveAppointment,
  markAppointment,
  sayLate,
  undoAppointment,
  addTask,
  changeTask,
  finishTask,
  changePractice,
  addRoom,
  changeRoom,
  setOpeningHours,
  setClosedDay,
  reorderLenses,
  bridgeWithTrials,
  withdrawBridge,
  recordReorderCall,
  chooseContact,
  markMessage,
  writeReminder,
  writeRecallMessages,
  openRecall,
  recordRecallCall,
  liftRecall,
  cancelOrder,
  recordTelephoned,
  recordArrived,
  openClaim,
  stepClaim,
  saveSupplier,
  renewSupplierSecret,
  recordLoss,
  withdrawLoss,
  recordReceipt,
  handOverBoxes,
  receiveTrials,
  lendTrials,
  endTrialLoan,
  setTrialLevels,
  recordRestock,
  discardTrials,
  countTrials,
  createWearer,
  updateWearer,
  mergeWearers,
  undoMerge,
  openVisit,
  closeVisit,
  changeVisit,
  recordExamined,
  saveDraft,
  recordHistory,
  recordFindings,
  recordLesion,
  answerAftercare,
  endAftercare,
  recordAdverseEvent,
  returnToWear,
  triageRedEye,
  keepOutsidePrescription,
  recordRequest,
  matchRequest,
  answerRequest,
  recordCopyRequest,
  endCopyRequest,
  acknowledgeAlert,
  overrideStop,
  endStop,
  openReferral,
  recordReferralStep,
  recordPicture,
  takePictures,
  decideKind,
  recordRefraction,
  putOnTrials,
  putOnSetLenses,
  recordGuidedCylinder,
  addSetLenses,
  disinfectLenses,
  endSetLens,
  recordBroughtIn,
  answerWorn,
  confirmLens,
  takeOff,
  putBack,
  recordOnEye,
  chooseLens,
  addInstrument,
  endInstrument,
  correct,
  swapEyes,
  undo,
  sign,
  recordCopy,
  prescribeCare,
  startLesson,
  instructLesson,
  decideNearWay,
  recordDriving,
  recordNearFindings,
  keepPairChange,
  recordPairReading,
  recordAttempt,
  recordTopic,
  recordTopicsAgain,
  setLessonWay,
  turnLessonClock,
  stopLesson,
  recordLessonSight,
  signOffLesson,
  openLessonScreen,
  showLessonPage,
  answerExercise,
  handOver,
  placeOrder,
  orderTrials,
  hastenOrder,
  saveFamily,
  endFamily,
  changeHouseList,
  recordImport,
  takeImport,
  cancelImport,
  changeSetting,
  saveCareProduct,
  recordCarePair,
  addStaff,
  changeStaff,
  endStaff,
  resetPassword,
  setLights,
  stillHere,
  setClock,
  giveTakeHome,
  checkLanguage,
  endWearerLink,
} as const;
/** Everything that only reads. */
export const QUERIES = {
  readOrderEvents,
  readRequests,
  exportPrescription,
  readPrescriptionCopy,
  readOutsidePrescriptions,
  readPrescriptionFile,
  readReorder,
  readDue,
  readOrder,
  readBag,
  readSuppliers,
  readCoverage,
  readFigures,
  readLessonFigures,
  readOutbox,
  readMessage,
  readRecalls,
  readRecall,
  readBox,
  readOrders,
  readDiary,
  readAppointment,
  findFree,
  readTasks,
  readRooms,
  readDrawer,
  readTrialMovements,
  readSets,
  readSetLens,
  readTrialBox,
  readRestock,
  exportRestock,
  readToday,
  searchWearers,
  readWearer,
  compareWearers,
  readMerges,
  readNewer,
  readVisit,
  readSession,
  readPicture,
  readMeasurementFile,
  readTimeline,
  exportPerson,
  readSettling,
  readLibrary,
  readFamilies,
  readFamily,
  exportCatalogue,
  readImport,
  readImportFaults,
  readSettings,
  readStaff,
  readHomePage,
  readSheet,
  readTakeHome,
  readLessonScreen,
  readLessonsNow,
} as const;
export type CommandName = keyof typeof COMMANDS;
export type QueryName = keyof typeof QUERIES;

/** Every use case by its name: what the application can do, and all that a request can ask for. */
export const SERVICES = { ...COMMANDS, ...QUERIES } as const;
export const isCommandName = (name: string): name is CommandName => Object.hasOwn(COMMANDS, name);
export const isQueryName = (name: string): name is QueryName => Object.hasOwn(QUERIES, name);
export type ServiceName = keyof typeof SERVICES;
