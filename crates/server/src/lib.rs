//! stub
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct Settings;
