//! The process that reads one file: it takes the file on its standard input and writes its pages, or why it cannot be read,
//! as JSON on its standard output.

use crate::read;
use hembo_core::slip::file::{LARGEST, Page, Unreadable};
use rustix::process::{Resource, Rlimit, setrlimit};
use std::io::{self, Read, Write};

/// How much memory it may take, in bytes.
const MOST_MEMORY: u64 = 1024 * 1024 * 1024;
/// How long it may compute, in seconds.
const LONGEST: u64 = 15;

/// Reads one file with no more memory and time than a slip needs, and without opening any other.
///
/// # Errors
/// When the limits cannot be set or nobody listens any more.
pub fn run() -> io::Result<()> {
    for (resource, most) in [(Resource::As, MOST_MEMORY), (Resource::Cpu, LONGEST), (Resource::Nofile, 3)] {
        setrlimit(resource, Rlimit { current: Some(most), maximum: Some(most) })?;
    }
    let mut file = Vec::new();
    io::stdin().take(LARGEST as u64 + 1).read_to_end(&mut file)?;
    let pages: Result<Vec<Page>, Unreadable> = read(&file);
    serde_json::to_writer(io::stdout().lock(), &pages)?;
    io::stdout().flush()
}
