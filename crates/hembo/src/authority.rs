//! `hembo authority`: the stand-in for tax authorities and payers, on loopback beside the server.

use hembo_authority::{data::Data, stand_in::StandIn};
use hembo_core::Registry;
use std::{
    io::{self, Write},
    net::SocketAddr,
    path::PathBuf,
};
use tokio::net::TcpListener;

/// How to play the authority.
#[derive(Debug, clap::Args)]
pub struct Arguments {
    /// The address to listen on.
    #[arg(long, default_value = "127.0.0.1:4350")]
    listen: SocketAddr,
    /// The folder of the made-up data.
    #[arg(long, default_value = "crates/authority/data")]
    data: PathBuf,
    /// The file in which it keeps consents and returns; without it they are lost at the end.
    #[arg(long)]
    books: Option<PathBuf>,
}

/// Plays the authority until the process is stopped.
///
/// # Errors
/// Data, a file or an address that cannot be used.
pub fn run(arguments: Arguments, registry: Registry) -> io::Result<()> {
    let stand_in = StandIn::new(Data::read(&arguments.data)?, registry, arguments.books)?
        .with_camera(hembo_reader::picture_of);
    tokio::runtime::Builder::new_multi_thread().enable_all().build()?.block_on(async {
        let listener = TcpListener::bind(arguments.listen).await?;
        let _ = writeln!(
            io::stdout(),
            "the stand-in listens on http://{0}; the slips it issues: http://{0}/slips",
            listener.local_addr()?
        );
        axum::serve(listener, stand_in.router()).await
    })
}
