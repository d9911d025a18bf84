//! Reading slips in a process of its own: what is no slip is told, and what is made to harm is left alone.

use flate2::{Compress, Compression, FlushCompress};
use hembo_core::slip::file::Unreadable;
use hembo_server::reading::{Program, Reader};

fn read(file: &[u8]) -> Result<usize, Unreadable> {
    let program = Program(env!("CARGO_BIN_EXE_hembo").into());
    let runtime = tokio::runtime::Builder::new_current_thread().enable_all().build().unwrap();
    runtime.block_on(program.read(file)).map(|pages| pages.len())
}

/// A PDF of one page with that content, compressed or not.
fn pdf(content: &[u8], filter: &str) -> Vec<u8> {
    let head = "%PDF-1.7\n1 0 obj\n<</Type/Catalog/Pages 2 0 R>>\nendobj\n\
        2 0 obj\n<</Type/Pages/Kids[3 0 R]/Count 1>>\nendobj\n\
        3 0 obj\n<</Type/Page/Parent 2 0 R/MediaBox[0 0 612 792]/Contents 4 0 R>>\nendobj\n";
    let stream = format!("4 0 obj\n<</Length {}{filter}>>\nstream\n", content.len());
    let tail = "\nendstream\nendobj\ntrailer\n<</Root 1 0 R>>\n%%EOF\n";
    [head.as_bytes(), stream.as_bytes(), content, tail.as_bytes()].concat()
}

/// A stream that unpacks to so many times 16 MB of blanks.
fn bomb(times: usize) -> Vec<u8> {
    let blanks = vec![b' '; 16 * 1024 * 1024];
    let mut packed = vec![0; 64 * 1024];
    let mut compress = Compress::new(Compression::best(), false);
    compress.compress(&blanks, &mut packed, FlushCompress::Full).unwrap();
    packed.truncate(usize::try_from(compress.total_out()).unwrap());
    // The header of zlib, then blocks that depend on nothing before them.
    [[0x78, 0xda].as_slice(), &packed.repeat(times)].concat()
}

#[test]
fn a_plain_page_is_read_and_damaged_files_are_told() {
    assert_eq!(read(&pdf(b"0 0 100 100 re f", "")), Ok(1));
    assert_eq!(read(&pdf(&bomb(1), "/Filter/FlateDecode")), Ok(1));
    for (file, says) in [
        (b"%PDF-1.7\nnothing in it".as_slice(), "damaged"),
        (b"\x89PNG\r\n\x1a\nno picture", "cannot be read"),
        (b"\xff\xd8\xff\xe0no picture", "cannot be read"),
        (b"plain words", "neither a PDF nor a picture"),
    ] {
        let why = read(file).unwrap_err();
        assert!(why.0.contains(says), "{why}");
    }
}

#[test]
fn a_file_that_unpacks_to_more_than_a_slip_needs_is_left_alone() {
    let file = pdf(&bomb(100), "/Filter/FlateDecode");
    assert!(file.len() < 10 * 1024 * 1024, "{}", file.len());
    let why = read(&file).unwrap_err();
    assert!(why.0.contains("more memory or time"), "{why}");
}

/// What the allocator reserves is no part of what a file may take: reading does not hang on where the system puts it.
#[test]
fn a_slip_is_read_every_time() {
    let page = pdf(b"0 0 100 100 re f", "");
    let failed: Vec<_> = (0..100).filter_map(|_| read(&page).err()).collect();
    assert_eq!(failed, vec![]);
}
