import {
  createRootRoute,
  createRoute,
  createRouter,
  Link,
  Outlet,
  redirect,
  useRouterState,
} from "@tanstack/react-router";
import { type Filter, Households } from "./households/Households";
import { later } from "./later";
import { SignInGate } from "./signin/SignInGate";
import { Blank } from "./ui/pieces";
import { STAGES } from "./ui/stages";

type Views = typeof import("./desk/views");

/** The views of the desk, which come with it. */
let onDesk: Views | undefined;

async function desks() {
  onDesk = await import("./desk/views");
  return onDesk;
}

/** A view of the desk, which is there before any of them is shown. */
const view = (name: Exclude<keyof Views, "Desk">) => () => {
  const View = onDesk?.[name];
  return View ? <View /> : null;
};

/** Where one stands on the desk, in the address: it survives a reload and can be sent to a colleague. */
export type Standing = {
  paper?: string;
  field?: string;
  row?: string;
  person?: string;
  household?: boolean;
  line?: string;
  scopes?: string;
  trail?: boolean;
  form?: string;
  slip?: string;
  /** Of Held: what the authority assesses by itself. */
  own?: boolean;
  /** The slip as a file that is shown beside the boxes of its paper. */
  file?: string;
  /** Of Hand-over: filing or the next year; else the pack. */
  side?: "filing" | "next";
  /** Of Hand-over: the letter, and whether it asks for papers. */
  letter?: "wanted";
};

const text = (value: unknown) => (typeof value === "string" ? value : undefined);

function standing(search: Record<string, unknown>): Standing {
  return {
    paper: text(search.paper),
    field: search.field === undefined ? undefined : String(search.field),
    row: search.row === undefined ? undefined : String(search.row),
    person: text(search.person),
    household: search.household === true || undefined,
    line: text(search.line),
    scopes: text(search.scopes),
    trail: search.trail === true || undefined,
    form: text(search.form),
    slip: text(search.slip),
    own: search.own === true || undefined,
    file: text(search.file),
    letter: search.letter === "wanted" ? "wanted" : undefined,
    side: search.side === "filing" || search.side === "next" ? search.side : undefined,
  };
}

/** Who comes by a link has no password yet: that page stands before the sign-in. */
function Root() {
  const welcome = useRouterState({ select: (s) => s.location.pathname === "/welcome" });
  if (welcome) return <Outlet />;
  return (
    <SignInGate>
      <Outlet />
    </SignInGate>
  );
}

const root = createRootRoute({
  component: Root,
  notFoundComponent: () => (
    <Blank title="There is no such page">
      <Link to="/">Go to the households</Link>
    </Blank>
  ),
});

const households = createRoute({
  getParentRoute: () => root,
  path: "/",
  validateSearch: (search: Record<string, unknown>): Filter => ({
    stage: STAGES.find((stage) => stage === search.stage),
    whose: text(search.whose),
    away: search.away === true || undefined,
    law: text(search.law),
    year: typeof search.year === "number" ? search.year : undefined,
    held: typeof search.held === "boolean" ? search.held : undefined,
  }),
  component: Households,
});

const welcome = createRoute({
  getParentRoute: () => root,
  path: "/welcome",
  component: later(() => import("./signin/Welcome"), "Welcome"),
});

const figures = createRoute({
  getParentRoute: () => root,
  path: "/figures",
  validateSearch: (search: Record<string, unknown>): { law?: string; table?: string; own?: true } => ({
    own: search.own === true || undefined,
    law: text(search.law),
    table: text(search.table),
  }),
  component: later(() => import("./figures/FiguresView"), "FiguresView"),
});

const planning = createRoute({
  getParentRoute: () => root,
  path: "/planning",
  validateSearch: (search: Record<string, unknown>): { law?: string; year?: number; by?: number } => ({
    law: text(search.law),
    year: typeof search.year === "number" ? search.year : undefined,
    by: typeof search.by === "number" ? search.by : undefined,
  }),
  component: later(() => import("./households/Planning"), "Planning"),
});

const desk = createRoute({
  getParentRoute: () => root,
  path: "/h/$id",
  validateSearch: standing,
  component: later(desks, "Desk"),
});

const start = createRoute({
  getParentRoute: () => desk,
  path: "/",
  beforeLoad: ({ params }) => {
    throw redirect({ to: "/h/$id/spread", params, search: {} });
  },
});

const spread = createRoute({ getParentRoute: () => desk, path: "spread", component: view("SpreadView") });
const papers = createRoute({ getParentRoute: () => desk, path: "papers", component: view("PapersView") });
const held = createRoute({ getParentRoute: () => desk, path: "held", component: view("HeldView") });
const ways = createRoute({ getParentRoute: () => desk, path: "ways", component: view("WaysView") });
const points = createRoute({ getParentRoute: () => desk, path: "points", component: view("PointsView") });
const schedules = createRoute({
  getParentRoute: () => desk,
  path: "schedules",
  component: view("SchedulesView"),
});
const computation = createRoute({
  getParentRoute: () => desk,
  path: "computation",
  component: view("ComputationView"),
});
const handOver = createRoute({
  getParentRoute: () => desk,
  path: "hand-over",
  component: view("HandOverView"),
});

export const router = createRouter({
  routeTree: root.addChildren([
    households,
    welcome,
    figures,
    planning,
    desk.addChildren([start, spread, papers, held, ways, points, schedules, computation, handOver]),
  ]),
});

declare module "@tanstack/react-router" {
  interface Register {
    router: typeof router;
  }
}
