//! The states of work that a return goes through in a practice, and who may move it from one to the next.

use serde::{Deserialize, Serialize};
use std::fmt;
use utoipa::ToSchema;

/// Where a return stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stage {
    /// Papers come in and are keyed.
    InWork,
    /// Whoever works on it is done; a reviewer is asked.
    Ready,
    /// A reviewer reads it.
    InReview,
    /// The reviewer gave it back with remarks.
    Remarks,
    /// The reviewer found nothing left to do.
    Cleared,
    /// The family has its pack.
    HandedOver,
    /// The authority has the return.
    Sent,
    /// The authority took it.
    Accepted,
    /// The authority refused it.
    Refused,
    /// The authority assessed it.
    Assessed,
}

use Stage::{Accepted, Assessed, Cleared, HandedOver, InReview, InWork, Ready, Refused, Remarks, Sent};

/// The states as they are stored, in the order of the work.
const STORED: [(Stage, &str); 10] = [
    (InWork, "in_work"),
    (Ready, "ready"),
    (InReview, "in_review"),
    (Remarks, "remarks"),
    (Cleared, "cleared"),
    (HandedOver, "handed_over"),
    (Sent, "sent"),
    (Accepted, "accepted"),
    (Refused, "refused"),
    (Assessed, "assessed"),
];

impl Stage {
    /// How it is stored.
    pub fn stored(self) -> &'static str {
        STORED.iter().find(|(stage, _)| *stage == self).map_or("in_work", |(_, text)| text)
    }

    /// What was stored; a text that is none reads as in work.
    pub fn read(text: &str) -> Stage {
        STORED.iter().find(|(_, stored)| *stored == text).map_or(InWork, |(stage, _)| *stage)
    }

    /// The figures were found right as they are: a change takes the return back into work.
    pub fn is_settled(self) -> bool {
        self >= Cleared
    }
}

impl fmt::Display for Stage {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        to.write_str(match self {
            InWork => "in work",
            Ready => "ready for review",
            InReview => "in review",
            Remarks => "back with remarks",
            Cleared => "cleared",
            HandedOver => "handed over",
            Sent => "sent",
            Accepted => "accepted",
            Refused => "refused",
            Assessed => "assessed",
        })
    }
}

/// A step that can be taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Step {
    /// From there.
    pub from: Stage,
    /// To there.
    pub to: Stage,
    /// Only a reviewer takes it.
    pub review: bool,
    /// Something must be said with it.
    pub words: bool,
    /// Nothing may block, and the figures must be a result.
    pub clean: bool,
    /// Not before the day until which filing is held.
    pub filing: bool,
}

const fn step(from: Stage, to: Stage) -> Step {
    Step { from, to, review: false, words: false, clean: false, filing: false }
}

impl Step {
    const fn by_reviewer(self) -> Step {
        Step { review: true, ..self }
    }

    const fn with_words(self) -> Step {
        Step { words: true, ..self }
    }

    const fn clean(self) -> Step {
        Step { clean: true, ..self }
    }

    const fn filing(self) -> Step {
        Step { filing: true, clean: true, ..self }
    }
}

/// Every step, in the order of the work.
pub static STEPS: [Step; 15] = [
    step(InWork, Ready),
    step(Remarks, Ready),
    step(Ready, InWork),
    step(Ready, InReview).by_reviewer(),
    step(InReview, Remarks).by_reviewer().with_words(),
    step(InReview, Cleared).by_reviewer().clean(),
    step(Cleared, HandedOver).clean(),
    step(Cleared, InWork).with_words(),
    step(HandedOver, Sent).filing(),
    step(HandedOver, InWork).with_words(),
    step(Sent, Accepted),
    step(Sent, Refused).with_words(),
    step(Refused, InWork),
    step(Accepted, Assessed),
    step(Remarks, InWork),
];

/// Who wants to move a return, and how it stands.
#[derive(Debug, Clone, Copy)]
pub struct Standing {
    /// preparer, reviewer or administrator.
    pub is_reviewer: bool,
    /// They work on it, or handed it in for review.
    pub is_own: bool,
    /// The practice lets people review their own work.
    pub own_review: bool,
    /// How many open points block.
    pub blocking: usize,
    /// The figures are a result.
    pub covered: bool,
    /// The year is not over: its forms are not out.
    pub planning: bool,
    /// Filing is held until a day that has not come.
    pub held: bool,
}

impl Step {
    /// Why a step cannot be taken; none where it can.
    pub fn why_not(&self, standing: Standing) -> Option<String> {
        let Standing { is_reviewer, is_own, own_review, blocking, covered, planning, held } = standing;
        if self.review && !own_review && !is_reviewer {
            return Some("Only a reviewer or an administrator does this.".into());
        }
        if self.review && !own_review && is_own {
            return Some("This is your own work: somebody else reviews it.".into());
        }
        if self.clean && planning {
            return Some("The year is for planning: it is not over, and its forms are not out.".into());
        }
        if self.clean && !covered {
            return Some("The figures are not a result: an open point says what is not computed.".into());
        }
        if self.clean && blocking > 0 {
            let points = if blocking == 1 {
                "1 open point blocks".into()
            } else {
                format!("{blocking} open points block")
            };
            return Some(format!("{points}: settle it first."));
        }
        (self.filing && held).then(|| "Its filing is held until a day that has not come.".into())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const CLEAN: Standing = Standing {
        is_reviewer: true,
        is_own: false,
        own_review: false,
        blocking: 0,
        covered: true,
        planning: false,
        held: false,
    };

    fn find(from: Stage, to: Stage) -> Step {
        *STEPS.iter().find(|s| (s.from, s.to) == (from, to)).expect("there is such a step")
    }

    #[test]
    fn every_state_is_stored_and_read_and_can_be_left_but_the_last() {
        for (stage, text) in STORED {
            assert_eq!((Stage::read(text), stage.stored()), (stage, text));
            assert_eq!(serde_json::to_value(stage).ok(), Some(text.into()));
            assert_eq!(STEPS.iter().any(|step| step.from == stage), stage != Assessed, "{stage}");
        }
    }

    #[test]
    fn only_a_reviewer_of_somebody_elses_work_reviews() {
        let review = find(Ready, InReview);
        assert_eq!(review.why_not(CLEAN), None);
        assert!(review.why_not(Standing { is_own: true, ..CLEAN }).is_some());
        assert!(review.why_not(Standing { is_reviewer: false, ..CLEAN }).is_some());
        let alone = Standing { is_own: true, is_reviewer: false, own_review: true, ..CLEAN };
        assert_eq!(review.why_not(alone), None);
        assert_eq!(find(InWork, Ready).why_not(Standing { is_reviewer: false, ..CLEAN }), None);
    }

    #[test]
    fn what_blocks_or_is_no_result_is_not_cleared_handed_over_or_sent() {
        for step in [find(InReview, Cleared), find(Cleared, HandedOver), find(HandedOver, Sent)] {
            assert_eq!(step.why_not(CLEAN), None);
            assert!(step.why_not(Standing { blocking: 1, ..CLEAN }).is_some());
            assert!(step.why_not(Standing { covered: false, ..CLEAN }).is_some());
            assert!(step.why_not(Standing { planning: true, ..CLEAN }).is_some());
            assert_eq!(step.why_not(Standing { held: true, ..CLEAN }).is_some(), step.to == Sent);
        }
        assert_eq!(find(InReview, Remarks).why_not(Standing { blocking: 3, ..CLEAN }), None);
    }
}
