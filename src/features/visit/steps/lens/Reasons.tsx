import { ChoosingReasons } from './ChoosingReasons';
import { StartLine } from './StartLine';
import type { Choosing } from './useChoosing';

/** Why the list stands as it does, and with which pair the family chosen begins: it comes with what it needs of the families' tables. */
export function Reasons({ choosing }: { readonly choosing: Choosing }) {
  return (
    <>
      <ChoosingReasons choosing={choosing} />
      <StartLine choosing={choosing} />
    </>
  );
}
