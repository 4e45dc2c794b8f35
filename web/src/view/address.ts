import { watch, type Ref } from "vue";
import {
  isNavigationFailure,
  NavigationFailureType,
  useRoute,
  useRouter,
  type RouteLocationNormalized,
  type Router,
} from "vue-router";

/** Where the page is going while a stage is fetched: what is put into the address goes there with it. */
let going: RouteLocationNormalized | null = null;

/** Know of the router's own navigations. */
export function followRouter(router: Router): void {
  router.beforeEach((to) => {
    going = to;
  });
  router.afterEach((to, _from, failure) => {
    // One that gave way to a later one ends first: the later one is still where the page goes.
    if (to === going && !isNavigationFailure(failure, NavigationFailureType.cancelled)) going = null;
  });
}

/** What of the address is to change at the end of this turn: several things may be chosen at once. */
let pending: { query: Record<string, string | undefined>; push: boolean } | null = null;

function put(router: Router, name: string, value: string, push: boolean): void {
  if (!pending) {
    pending = { query: {}, push: false };
    // Not sooner: a navigation that the same turn began is known only after the turn's promises.
    setTimeout(() => {
      const { query, push: step } = pending!;
      pending = null;
      const now = going ?? router.currentRoute.value;
      const to = { path: now.path, query: { ...now.query, ...query } };
      void (step ? router.push(to) : router.replace(to));
    });
  }
  pending.query[name] = value || undefined;
  pending.push ||= push;
}

/**
 * Keep something that is looked at in the address, so that back, forward, reload and a sent link return to it.
 *
 * @param step whether a change is a step that "back" returns from; the hour on the rail is none
 * @param valid which texts of an address are taken
 */
export function addressed(
  name: string,
  value: Ref<string>,
  step = true,
  valid: (text: string) => boolean = () => true,
): void {
  const route = useRoute();
  const router = useRouter();
  const path = route.path;
  const read = () => {
    const text = route.query[name];
    return typeof text === "string" && valid(text) ? text : null;
  };
  const first = read();
  if (first !== null) value.value = first;
  let told = value.value;
  watch(value, (now) => {
    if (now === told) return;
    // From nothing to something is no step: that is a page finding its beginning.
    if ((route.query[name] ?? "") !== now) put(router, name, now, step && told !== "");
    told = now;
  });
  watch(
    () => route.query[name],
    () => {
      const text = read();
      if (text === null || text === value.value) return;
      told = text;
      value.value = text;
    },
  );
  // The stage's own address may have come without it.
  if (first === null && value.value && route.matched.length && route.path === path)
    put(router, name, value.value, false);
}
