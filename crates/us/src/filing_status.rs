//! The filing statuses themselves (§§1, 2).

/// The five filing statuses.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Status {
    /// Unmarried (§1(c)).
    Single,
    /// Married filing jointly (§6013).
    Joint,
    /// Qualifying surviving spouse (§2(a)).
    Surviving,
    /// Head of household (§2(b)).
    Head,
    /// Married filing separately (§1(d)).
    Separate,
}

impl Status {
    /// The status in a word or two.
    pub fn label(self) -> &'static str {
        match self {
            Status::Single => "single",
            Status::Joint => "joint",
            Status::Surviving => "surviving spouse",
            Status::Head => "head of household",
            Status::Separate => "separate",
        }
    }

    /// Whether the higher additions for the unmarried apply (§63(f)(3)).
    pub fn unmarried(self) -> bool {
        matches!(self, Status::Single | Status::Head)
    }
}

impl Status {
    /// What it is called in files.
    pub fn id(self) -> &'static str {
        match self {
            Status::Single => "single",
            Status::Joint => "joint",
            Status::Surviving => "surviving",
            Status::Head => "head",
            Status::Separate => "separate",
        }
    }
}
