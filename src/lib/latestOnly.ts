/**
 * Asks one thing at a time: while one is under way only the newest question waits behind it, and those between are
 * passed over. A question that fails is passed over too.
 * @param answer finds the answer elsewhere
 * @param tell hears the answers in the order asked
 */
export function latestOnly<Question, Answer>(
  answer: (question: Question) => PromiseLike<Answer>,
  tell: (answer: Answer) => void,
): (question: Question) => void {
  let waiting: { readonly question: Question } | null = null;
  let busy = false;
  const next = async (): Promise<void> => {
    busy = true;
    while (waiting !== null) {
      const { question }: { readonly question: Question } = waiting;
      waiting = null;
      try {
        tell(await answer(question));
      } catch {
        // Whoever asks on is answered; this one is not.
      }
    }
    busy = false;
  };
  return (question) => {
    waiting = { question };
    if (!busy) void next();
  };
}
