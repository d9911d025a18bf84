//! Where a margin that falls along a line crosses from one side to the other.

/// A place on the line, and how much of the margin is there: more weighs it less.
#[derive(Debug, Clone, Copy)]
struct End {
    place: i64,
    weight: i64,
}

/// The two neighbouring places between which a margin changes from not negative to negative; given are its ends, the first not negative,
/// in either order, and the margins there. Mostly straight to where a linear margin is zero; an end that stays is believed less each time, so
/// that bends and rounding cost no more than a few places.
pub(super) fn crossing(
    upper: (i64, i64),
    lower: (i64, i64),
    mut margin: impl FnMut(i64) -> i64,
) -> (i64, i64) {
    // A margin of nothing is the upper side: a cent more, and neither weight is ever nothing.
    let mut upper = End { place: upper.0, weight: upper.1 + 1 };
    let mut lower = End { place: lower.0, weight: -lower.1 };
    let mut stayed = None;
    while (lower.place - upper.place).abs() > 1 {
        let width = lower.place - upper.place;
        let straight = i128::from(width.abs()) * i128::from(upper.weight)
            / (i128::from(upper.weight) + i128::from(lower.weight));
        let step = (straight as i64).clamp(1, width.abs() - 1);
        let place = upper.place + step * width.signum();
        let found = margin(place);
        let is_upper = found >= 0;
        let (moved, other) = if is_upper { (&mut upper, &mut lower) } else { (&mut lower, &mut upper) };
        *moved = End { place, weight: if is_upper { found + 1 } else { -found } };
        if stayed == Some(!is_upper) {
            other.weight = (other.weight / 2).max(1);
        }
        stayed = Some(!is_upper);
    }
    (upper.place, lower.place)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// Where it is, and how often the margin was asked for.
    fn found(ends: (i64, i64), margin: impl Fn(i64) -> i64) -> ((i64, i64), usize) {
        let mut asked = 0;
        let of = |place: i64| (place, margin(place));
        let found = crossing(of(ends.0), of(ends.1), |place| {
            asked += 1;
            margin(place)
        });
        (found, asked)
    }

    #[test]
    fn a_line_is_crossed_at_once() {
        let (at, asked) = found((0, 1_000_000), |place| 333_333 - place);
        assert_eq!(at, (333_333, 333_334));
        assert!(asked <= 3, "{asked}");
        let (at, asked) = found((1_000_000, 0), |place| place - 333_333);
        assert_eq!(at, (333_333, 333_332));
        assert!(asked <= 4, "{asked}");
    }

    #[test]
    fn neighbours_are_as_they_are() {
        assert_eq!(found((7, 8), |place| 7 - place), ((7, 8), 0));
    }

    proptest! {
        /// Bends, flats and rounding are no trouble.
        #[test]
        fn a_bent_line_is_crossed_in_few_places(
            zero in 1_i64..1_000_000,
            flat in 0_i64..5_000,
            slopes in prop::array::uniform2(1_i64..300),
        ) {
            let margin = |place: i64| match place {
                _ if place <= zero - flat => (zero - flat - place) * slopes[0] / 100,
                _ if place <= zero => 0,
                _ => -1 - (place - zero) * slopes[1] / 100,
            };
            let (at, asked) = found((0, 1_000_000), margin);
            prop_assert_eq!(at, (zero, zero + 1));
            // The most that was met is 63, of some twenty thousand; mostly it is about twenty.
            prop_assert!(asked <= 80, "{} places", asked);
        }
    }
}
