import 'server-only';
import type { z } from 'zod';
import { may, type AskedLens, type Compared } from '../../core';
import { insertRequest, insertRequestAnswer, insertRequestWearer, lockRequest } from '../../db/request';
import { insertRequestDispatch } from '../../db/requestDispatch';
import { findWearer } from '../../db/wearer';
import { err, forbidden, invalid, notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { answerRequestForm, matchRequestForm, requestForm } from '../../schema/request';
import { momentOf } from '../appointment/moments';
import { defineCommand, type Context } from '../define';
import { compareNow } from './compare';
import { deadlines } from './deadlines';
import { tellToday } from './tellToday';

/** Paper that lay longer than so many days is no request of today: our own choice. */
const OLDEST_DAYS = 30;
const DAY_MS = 86_400_000;
const about = (_form: unknown, out: { readonly requestId: string }) => ({ subjectKind: 'request', subjectId: out.requestId });

/** One line on Today for whatever waits. */
const today = ({ tx, caller, now, today: day }: Context): Promise<void> =>
  tellToday(tx, { practiceId: caller.practiceId, at: now, today: day, by: caller.personId });

type Asked = z.output<typeof requestForm>['right'];
const lensOf = (asked: Asked): AskedLens | null => asked && { ...asked, power: asked.power.power };

/** A seller's request, typed in as it came: whatever it lacks. */
export const recordRequest = defineCommand({
  name: 'recordRequest',
  right: 'wearers',
  input: requestForm,
  about,
  run: async (context, form): Promise<Result<{ requestId: string }>> => {
    const { tx, caller, now, practice } = context;
    const receivedAt = momentOf(form.receivedOn, form.receivedTime, practice.timeZone);
    if (receivedAt > now) return invalid('receivedTime', 'receivedInFuture');
    if (Date.parse(now) - Date.parse(receivedAt) > OLDEST_DAYS * DAY_MS) return invalid('receivedOn', 'receivedLongAgo', { days: OLDEST_DAYS });
    if (form.askedOn !== null && form.askedOn > context.today) return invalid('askedOn', 'dayInFuture', { day: form.askedOn });
    if (form.wearerId !== null && !(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    const id = context.newId();
    const { sellerName, sellerContact, wearerName, wearerAddress, askedOn } = form;
    const eyes = { right: lensOf(form.right), left: lensOf(form.left) };
    await insertRequest(tx, {
      id,
      practiceId: caller.practiceId,
      arrived: 'typed',
      outsideRef: null,
      ...{ sellerName, sellerContact, wearerName, wearerAddress, askedOn, eyes, receivedAt },
      ...(await deadlines(
        tx,
        { practiceId: caller.practiceId, timeZone: practice.timeZone, settings: context.settings },
        'answerHours',
        receivedAt,
        form.receivedOn,
      )),
      recordedAt: now,
      recordedBy: caller.personId,
    });
    if (form.wearerId !== null)
      await insertRequestWearer(tx, id, form.wearerId, { id: context.newId(), practiceId: caller.practiceId, at: now, by: caller.personId });
    await today(context);
    return ok({ requestId: id });
  },
});

/** Whose request it is, as somebody found out. */
export const matchRequest = defineCommand({
  name: 'matchRequest',
  right: 'wearers',
  input: matchRequestForm,
  about,
  run: async (context, form): Promise<Result<{ requestId: string }>> => {
    const { tx, caller, now } = context;
    const request = await lockRequest(tx, caller.practiceId, form.requestId);
    if (!request) return notFound('request');
    if (request.answers > 0) return ruleBroken('requestAnswered');
    if (!(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    await insertRequestWearer(tx, request.id, form.wearerId, { id: context.newId(), practiceId: caller.practiceId, at: now, by: caller.personId });
    return ok({ requestId: request.id });
  },
});

/** What anybody at the desk may answer: the same lens that is prescribed, or that its prescription is over. The rest is a prescriber's. */
const isPlain = (compared: Compared, answer: string): boolean =>
  answer === compared.proposed && compared.missing.length === 0 && (compared.proposed === 'correct' || compared.proposed === 'expired');

/** A person answers; nothing goes by itself. What was proposed, and what differed, is kept beside it. */
export const answerRequest = defineCommand({
  name: 'answerRequest',
  right: 'wearers',
  input: answerRequestForm,
  about,
  run: async (context, form): Promise<Result<{ requestId: string }>> => {
    const { tx, caller, now } = context;
    const request = await lockRequest(tx, caller.practiceId, form.requestId);
    if (!request) return notFound('request');
    if (request.answers !== form.seen) return err({ kind: 'conflict', what: 'request', differs: [] });
    const compared = await compareNow(context, request);
    const { answer, reason } = form;
    if ((answer === 'correct' || answer === 'corrected') && compared.prescription === null) return invalid('answer', 'nothingInForce');
    if (!isPlain(compared, answer) && !may(caller.roles, 'sign')) return forbidden('sign');
    // Whoever answers otherwise than proposed says why.
    if (answer !== compared.proposed && reason === null) return invalid('reason', 'otherwiseReason');
    const by = { id: context.newId(), practiceId: caller.practiceId, at: now, by: caller.personId };
    // What a seller's own system asked is answered to it; everybody else is told by a person.
    const sent = request.arrived === 'sent';
    await insertRequestAnswer(tx, { requestId: request.id, place: request.answers + 1, answer, compared, reason }, by);
    if (sent) await insertRequestDispatch(tx, { answerId: by.id, practiceId: caller.practiceId, dueAt: now });
    await today(context);
    return ok({ requestId: request.id });
  },
});
