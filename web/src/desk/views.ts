// The desk with its views: they come together, so that one gives way to the next without a wait.
export { HandOverView } from "../handover/HandOverView";
export { HeldView } from "../held/HeldView";
export { PapersView } from "../papers/PapersView";
export { PointsView } from "../points/PointsView";
export { SchedulesView } from "../schedules/SchedulesView";
export { SpreadView } from "../spread/SpreadView";
export { ComputationView } from "../trail/ComputationView";
export { WaysView } from "../ways/WaysView";
export { Desk } from "./Desk";
