//! Reading slips that come as files: each in a process of its own that can do no harm (`hembo read`).

use async_trait::async_trait;
use hembo_core::slip::file::{Page, Unreadable};
use std::{fmt, path::PathBuf, process::Stdio, time::Duration};
use tokio::{io::AsyncWriteExt, process::Command, time::timeout};

/// How long a file may take.
const LONGEST: Duration = Duration::from_secs(20);

/// How much the allocator takes at once, in KiB: by itself it would take as much as a file may need at most, before it is opened.
const RESERVED: (&str, &str) = ("MIMALLOC_ARENA_RESERVE", "32768");

/// What reads files.
#[async_trait]
pub trait Reader: Send + Sync + fmt::Debug {
    /// The pages of a file, or why it cannot be read.
    async fn read(&self, file: &[u8]) -> Result<Vec<Page>, Unreadable>;
}

/// A program that is started for each file with `read`.
#[derive(Debug)]
pub struct Program(pub PathBuf);

#[async_trait]
impl Reader for Program {
    async fn read(&self, file: &[u8]) -> Result<Vec<Page>, Unreadable> {
        let failed =
            || Unreadable("The file could not be read just now. Nothing was changed; try again.".into());
        let mut command = Command::new(&self.0);
        command.arg("read").env_clear().env(RESERVED.0, RESERVED.1).kill_on_drop(true);
        command.stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::null());
        let mut child = command.spawn().map_err(|_| failed())?;
        let mut input = child.stdin.take().ok_or_else(failed)?;
        let whole = async {
            // A child that ends early does not take all of it.
            let _ = input.write_all(file).await;
            drop(input);
            child.wait_with_output().await
        };
        let harmful = || {
            Unreadable(
                "The file takes more memory or time to open than a slip does, so it was left alone. Save it anew, or \
                 scan the paper."
                    .into(),
            )
        };
        let output = timeout(LONGEST, whole).await.map_err(|_| harmful())?.map_err(|_| failed())?;
        if !output.status.success() {
            return Err(harmful());
        }
        serde_json::from_slice::<Result<Vec<Page>, Unreadable>>(&output.stdout).map_err(|_| failed())?
    }
}
