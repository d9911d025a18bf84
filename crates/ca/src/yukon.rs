//! Yukon (Income Tax Act; YT428): the federal amounts at its own rate.

use crate::provincial_law::{Caring, ProvincialLaw, common};
use hembo_core::provision::Provision;

/// What this provision declares.
pub static PROVISION: Provision = Provision { figures: &["yukon", "yukon_relatives"], ..Provision::NONE };

/// The law of Yukon.
#[derive(Debug)]
pub struct Yukon;

impl ProvincialLaw for Yukon {
    common!("YT", "yt", yukon, yukon_relatives, yukon_credits, "yt479" => crate::form_428::form_479);
    const CARING: Caring = Caring::Federal;
}
