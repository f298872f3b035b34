import aftercare from './aftercare.messages.json';
import { allProblems } from './allProblems';
import answers from './answers.messages.json';
import asLastTime from './asLastTime.messages.json';
import blurWorking from './blurWorking.messages.json';
import broughtIn from './broughtIn.messages.json';
import care from './care.messages.json';
import careSystem from './careSystem.messages.json';
import conflict from './conflict.messages.json';
import correct from './correct.messages.json';
import correctPanel from './correctPanel.messages.json';
import cost from './cost.messages.json';
import bookNext from './bookNext.messages.json';
import drawing from './drawing.messages.json';
import exercise from './exercise.messages.json';
import lampHelp from './lampHelp.messages.json';
import show from './show.messages.json';
import scenes from './scenes.messages.json';
import device from './device.messages.json';
import diary from './diary.messages.json';
import draft from './draft.messages.json';
import drawer from './drawer.messages.json';
import drawerMore from './drawerMore.messages.json';
import expected from './expected.messages.json';
import eyeHealth from './eyeHealth.messages.json';
import eyes from './eyes.messages.json';
import failed from './failed.messages.json';
import file from './file.messages.json';
import fitDesk from './fitDesk.messages.json';
import frame from './frame.messages.json';
import handOver from './handOver.messages.json';
import history from './history.messages.json';
import instrument from './instrument.messages.json';
import kind from './kind.messages.json';
import lastLook from './lastLook.messages.json';
import family from './family.messages.json';
import lens from './lens.messages.json';
import lensLine from './lensLine.messages.json';
import bracket from './bracket.messages.json';
import measurement from './measurement.messages.json';
import onEyeWorking from './onEyeWorking.messages.json';
import photo from './photo.messages.json';
import letters from './letters.messages.json';
import diagnosticSet from './diagnosticSet.messages.json';
import setPath from './setPath.messages.json';
import setReady from './setReady.messages.json';
import sets from './sets.messages.json';
import lensStory from './lensStory.messages.json';
import lensSigns from './lensSigns.messages.json';
import lesson from './lesson.messages.json';
import lessonFigures from './lessonFigures.messages.json';
import lessonsNow from './lessonsNow.messages.json';
import library from './library.messages.json';
import list from './list.messages.json';
import merge from './merge.messages.json';
import orders from './orders.messages.json';
import nearVision from './nearVision.messages.json';
import notFoundPage from './notFoundPage.messages.json';
import onEye from './onEye.messages.json';
import outside from './outside.messages.json';
import pairDesk from './pairDesk.messages.json';
import panels from './panels.messages.json';
import peroxide from './peroxide.messages.json';
import powerField from './powerField.messages.json';
import prescription from './prescription.messages.json';
import print from './print.messages.json';
import driving from './driving.messages.json';
import purposes from './purposes.messages.json';
import range from './range.messages.json';
import raw from './raw.messages.json';
import redEye from './redEye.messages.json';
import orderStory from './orderStory.messages.json';
import orderPage from './orderPage.messages.json';
import suppliers from './suppliers.messages.json';
import recalls from './recalls.messages.json';
import oldBoxes from './oldBoxes.messages.json';
import restock from './restock.messages.json';
import outbox from './outbox.messages.json';
import coverage from './coverage.messages.json';
import figures from './figures.messages.json';
import desk from './desk.messages.json';
import due from './due.messages.json';
import reorder from './reorder.messages.json';
import receipt from './receipt.messages.json';
import refraction from './refraction.messages.json';
import refused from './refused.messages.json';
import ruleNames from './ruleNames.messages.json';
import requests from './requests.messages.json';
import rooms from './rooms.messages.json';
import settings from './settings.messages.json';
import settle from './settle.messages.json';
import sightDesk from './sightDesk.messages.json';
import signIn from './signIn.messages.json';
import signs from './signs.messages.json';
import staff from './staff.messages.json';
import steps from './steps.messages.json';
import stops from './stops.messages.json';
import supply from './supply.messages.json';
import triage from './triage.messages.json';
import takeHomeDesk from './takeHomeDesk.messages.json';
import tasks from './tasks.messages.json';
import today from './today.messages.json';
import turnDesk from './turnDesk.messages.json';
import visitFrame from './visitFrame.messages.json';
import visit from './visit.messages.json';
import visitKind from './visitKind.messages.json';
import wearer from './wearer.messages.json';
import wearerForm from './wearerForm.messages.json';
import wearers from './wearers.messages.json';
import wornNow from './wornNow.messages.json';

/** Every word of the language, for types and tests: a page imports only what it says. */
export const en = {
  answers,
  blurWorking,
  broughtIn,
  care,
  careSystem,
  bookNext,
  drawing,
  scenes,
  exercise,
  lampHelp,
  show,
  correct,
  correctPanel,
  cost,
  device,
  diary,
  draft,
  drawer,
  drawerMore,
  expected,
  eyeHealth,
  eyes,
  failed,
  file,
  fitDesk,
  frame,
  handOver,
  history,
  instrument,
  kind,
  lastLook,
  family,
  lens,
  lensLine,
  lensStory,
  bracket,
  photo,
  onEyeWorking,
  measurement,
  letters,
  diagnosticSet,
  setPath,
  setReady,
  sets,
  lensSigns,
  lesson,
  lessonFigures,
  lessonsNow,
  library,
  list,
  merge,
  nearVision,
  notFoundPage,
  onEye,
  orders,
  pairDesk,
  panels,
  peroxide,
  powerField,
  prescription,
  print,
  problems: allProblems,
  driving,
  purposes,
  range,
  raw,
  receipt,
  refraction,
  refused,
  rooms,
  ruleNames,
  settings,
  settle,
  sightDesk,
  signIn,
  signs,
  staff,
  steps,
  stops,
  supply,
  takeHomeDesk,
  tasks,
  today,
  turnDesk,
  visit,
  visitFrame,
  visitKind,
  wearer,
  wearerForm,
  wearers,
  aftercare,
  asLastTime,
  conflict,
  orderStory,
  orderPage,
  suppliers,
  recalls,
  oldBoxes,
  restock,
  outbox,
  coverage,
  figures,
  desk,
  due,
  reorder,
  redEye,
  outside,
  requests,
  triage,
  wornNow,
};
