import { createRootRoute, createRoute, createRouter, Link, Outlet, redirect } from "@tanstack/react-router";
import { Desk } from "./desk/Desk";
import { FiguresView } from "./figures/FiguresView";
import { HandOverView } from "./handover/HandOverView";
import { HeldView } from "./held/HeldView";
import { type Filter, Households } from "./households/Households";
import { PapersView } from "./papers/PapersView";
import { PointsView } from "./points/PointsView";
import { SchedulesView } from "./schedules/SchedulesView";
import { SignInGate } from "./signin/SignInGate";
import { SpreadView } from "./spread/SpreadView";
import { Blank } from "./ui/pieces";
import { STAGES } from "./ui/stages";
import { WaysView } from "./ways/WaysView";

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

const root = createRootRoute({
  component: () => (
    <SignInGate>
      <Outlet />
    </SignInGate>
  ),
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

const figures = createRoute({
  getParentRoute: () => root,
  path: "/figures",
  validateSearch: (search: Record<string, unknown>): { law?: string; table?: string; own?: true } => ({
    own: search.own === true || undefined,
    law: text(search.law),
    table: text(search.table),
  }),
  component: FiguresView,
});

const desk = createRoute({
  getParentRoute: () => root,
  path: "/h/$id",
  validateSearch: standing,
  component: Desk,
});

const start = createRoute({
  getParentRoute: () => desk,
  path: "/",
  beforeLoad: ({ params }) => {
    throw redirect({ to: "/h/$id/spread", params, search: {} });
  },
});

const spread = createRoute({ getParentRoute: () => desk, path: "spread", component: SpreadView });
const papers = createRoute({ getParentRoute: () => desk, path: "papers", component: PapersView });
const held = createRoute({ getParentRoute: () => desk, path: "held", component: HeldView });
const ways = createRoute({ getParentRoute: () => desk, path: "ways", component: WaysView });
const points = createRoute({ getParentRoute: () => desk, path: "points", component: PointsView });
const schedules = createRoute({ getParentRoute: () => desk, path: "schedules", component: SchedulesView });
const handOver = createRoute({ getParentRoute: () => desk, path: "hand-over", component: HandOverView });

export const router = createRouter({
  routeTree: root.addChildren([
    households,
    figures,
    desk.addChildren([start, spread, papers, held, ways, points, schedules, handOver]),
  ]),
});

declare module "@tanstack/react-router" {
  interface Register {
    router: typeof router;
  }
}
