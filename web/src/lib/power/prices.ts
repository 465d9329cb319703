// Edits of what things cost. Nothing may be said about prices yet: then the whole comes with the first.
import type { PatchStep, Plan } from '../api/client';

type Prices = NonNullable<Plan['prices']>;

/** Sets one price of the plan. */
export function priceSteps(
  plan: Plan,
  field: Exclude<keyof Prices, 'goods'>,
  value: number,
): PatchStep[] {
  return plan.prices
    ? [{ op: 'add', path: `/prices/${field}`, value }]
    : [{ op: 'add', path: '/prices', value: { [field]: value } }];
}

/** Sets what one of a kind of thing costs, or how many are there. */
export function goodSteps(
  plan: Plan,
  name: string,
  change: { price?: number; owned?: number },
): PatchStep[] {
  const goods = plan.prices?.goods ?? [];
  const index = goods.findIndex((good) => good.name === name);
  if (index >= 0) {
    return Object.entries(change).map(([field, value]) => ({
      op: 'add' as const,
      path: `/prices/goods/${index}/${field}`,
      value,
    }));
  }
  const good = { name, owned: 0, ...change };
  if (plan.prices?.goods) return [{ op: 'add', path: '/prices/goods/-', value: good }];
  if (plan.prices) return [{ op: 'add', path: '/prices/goods', value: [good] }];
  return [{ op: 'add', path: '/prices', value: { goods: [good] } }];
}
