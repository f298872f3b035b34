import aftercareProblems from './aftercareProblems.messages.json';
import asLastTimeProblems from './asLastTimeProblems.messages.json';
import bookNextProblems from './bookNextProblems.messages.json';
import careProblems from './careProblems.messages.json';
import deskProblems from './deskProblems.messages.json';
import diaryProblems from './diaryProblems.messages.json';
import drawerMoreProblems from './drawerMoreProblems.messages.json';
import drawerProblems from './drawerProblems.messages.json';
import lessonProblems from './lessonProblems.messages.json';
import nearVisionProblems from './nearVisionProblems.messages.json';
import libraryProblems from './libraryProblems.messages.json';
import listProblems from './listProblems.messages.json';
import measurementProblems from './measurementProblems.messages.json';
import mergeProblems from './mergeProblems.messages.json';
import outboxProblems from './outboxProblems.messages.json';
import outsideProblems from './outsideProblems.messages.json';
import photoProblems from './photoProblems.messages.json';
import practiceProblems from './practiceProblems.messages.json';
import problems from './problems.messages.json';
import redEyeProblems from './redEyeProblems.messages.json';
import reorderProblems from './reorderProblems.messages.json';
import requestsProblems from './requestsProblems.messages.json';
import setProblems from './setProblems.messages.json';
import signProblems from './signProblems.messages.json';
import staffProblems from './staffProblems.messages.json';
import supplyProblems from './supplyProblems.messages.json';
import takeHomeProblems from './takeHomeProblems.messages.json';
import triageProblems from './triageProblems.messages.json';
import visitKindProblems from './visitKindProblems.messages.json';
import visitProblems from './visitProblems.messages.json';
import wornNowProblems from './wornNowProblems.messages.json';

/** The words of every refusal there is: for a place that may be told any of them. */
export const allProblems = {
  ...problems,
  ...diaryProblems,
  ...practiceProblems,
  ...drawerProblems,
  ...setProblems,
  ...visitProblems,
  ...libraryProblems,
  ...listProblems,
  ...measurementProblems,
  ...photoProblems,
  ...mergeProblems,
  ...visitKindProblems,
  ...wornNowProblems,
  ...asLastTimeProblems,
  ...aftercareProblems,
  ...careProblems,
  ...lessonProblems,
  ...nearVisionProblems,
  ...bookNextProblems,
  ...takeHomeProblems,
  ...staffProblems,
  ...redEyeProblems,
  ...triageProblems,
  ...requestsProblems,
  ...signProblems,
  ...supplyProblems,
  ...reorderProblems,
  ...deskProblems,
  ...drawerMoreProblems,
  ...outboxProblems,
  ...outsideProblems,
};
