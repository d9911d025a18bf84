//! scratch
use hembo_cluster::*;
fn main(){ let c=Cluster::start(std::path::Path::new("/var/lib/hembo-dev"),Kind::ThrowAway).unwrap(); println!("{}",c.url("postgres")); std::thread::park(); }
