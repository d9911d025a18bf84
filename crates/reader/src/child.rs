//! The process that reads one file: it takes the file on its standard input and writes its pages, or why it cannot be read,
//! as JSON on its standard output.

use crate::read;
use hembo_core::slip::file::{LARGEST, Page, Unreadable};
use rustix::{
    param::page_size,
    process::{Resource, Rlimit, setrlimit},
};
use std::{
    fs,
    io::{self, Read, Write},
};

/// How much memory it may take beside what it has when it begins, in bytes.
const MOST_MEMORY: u64 = 1024 * 1024 * 1024;
/// How long it may compute, in seconds.
const LONGEST: u64 = 15;

/// Reads one file with no more memory and time than a slip needs, and without opening any other.
///
/// # Errors
/// When the limits cannot be set or nobody listens any more.
pub fn run() -> io::Result<()> {
    let memory = address_space()? + MOST_MEMORY;
    for (resource, most) in [(Resource::As, memory), (Resource::Cpu, LONGEST), (Resource::Nofile, 3)] {
        setrlimit(resource, Rlimit { current: Some(most), maximum: Some(most) })?;
    }
    let mut file = Vec::new();
    io::stdin().take(LARGEST as u64 + 1).read_to_end(&mut file)?;
    let pages: Result<Vec<Page>, Unreadable> = read(&file);
    serde_json::to_writer(io::stdout().lock(), &pages)?;
    io::stdout().flush()
}

/// The addresses that this process has already, in bytes: an allocator reserves many before it needs them.
fn address_space() -> io::Result<u64> {
    let sizes = fs::read_to_string("/proc/self/statm")?;
    let pages = sizes.split(' ').next().and_then(|pages| pages.parse::<u64>().ok());
    Ok(pages.ok_or(io::ErrorKind::InvalidData)? * page_size() as u64)
}
