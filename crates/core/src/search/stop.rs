//! Stopping a search from outside, and how much work one may be.

use std::sync::{
    Arc,
    atomic::{AtomicBool, Ordering},
};

/// How many points of amounts one search reckons at the most; a household that needs more is told so. Counted in work,
/// not in time, so that it gives the same answer everywhere.
const MOST_POINTS: u64 = 100_000;

/// So many parts of a search over options are as much work as a point of amounts.
const OPTIONS_A_POINT: usize = 3;

/// A search that nobody waits for any more can be told to stop; every clone is the same.
#[derive(Debug, Clone)]
pub struct Stop {
    stopped: Arc<AtomicBool>,
    most_points: u64,
}

impl Default for Stop {
    fn default() -> Stop {
        Stop::with_budget(MOST_POINTS)
    }
}

/// The search was stopped: there is no result, not half of one.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("the computation was stopped")]
pub struct Stopped;

impl Stop {
    /// For a search that reckons so many points of amounts at the most.
    pub fn with_budget(most_points: u64) -> Stop {
        Stop { stopped: Arc::default(), most_points }
    }

    /// How many points of amounts the search may still reckon, after so many.
    pub(super) fn left(&self, reckoned: u64) -> u64 {
        self.most_points.saturating_sub(reckoned)
    }

    /// How many parts, sets of claims and sets of nodes a search over options alone may take: each is far less work.
    pub(super) fn most_of_options(&self) -> usize {
        usize::try_from(self.most_points).unwrap_or(usize::MAX).saturating_mul(OPTIONS_A_POINT)
    }

    /// Stops whatever watches this, within a part or two.
    pub fn stop(&self) {
        self.stopped.store(true, Ordering::Relaxed);
    }

    /// Whether it was stopped.
    pub fn is_stopped(&self) -> bool {
        self.stopped.load(Ordering::Relaxed)
    }

    /// What was found, unless it was found in a hurry.
    pub(super) fn unless_stopped<T>(&self, found: T) -> Result<T, Stopped> {
        if self.is_stopped() { Err(Stopped) } else { Ok(found) }
    }
}
