//! What the modules of a crate import of each other, read from their sources.

use std::{
    collections::{BTreeMap, BTreeSet},
    fs, io,
    path::Path,
};

type Imports = BTreeMap<String, BTreeSet<String>>;

/// The modules of a crate that import each other in a circle, with those between two circles; none where the crate can
/// be read from its leaves up. `sources` is its `src`; the root of the crate may import all.
///
/// # Errors
/// When a source cannot be read.
pub fn circles(sources: &Path) -> io::Result<Vec<String>> {
    let mut imports = Imports::new();
    for entry in fs::read_dir(sources)? {
        let path = entry?.path();
        let module = path.file_stem().unwrap_or_default().to_string_lossy().into_owned();
        if module != "lib" {
            gather(&path, imports.entry(module).or_default())?;
        }
    }
    for (module, of) in &mut imports {
        of.remove(module);
    }
    Ok(in_circles(imports))
}

/// The tables of rule figures that a provision's module names and does not declare: `module: table`. `tables` are the ids of all.
///
/// # Errors
/// When a source cannot be read.
pub fn undeclared_figures(sources: &Path, tables: &[String]) -> io::Result<Vec<String>> {
    let mut found = Vec::new();
    for entry in fs::read_dir(sources)? {
        let path = entry?.path();
        if path.is_dir() {
            found.extend(undeclared_figures(&path, tables)?);
            continue;
        }
        let text = fs::read_to_string(&path)?;
        let Some((_, declared)) = text.split_once("pub static PROVISION: Provision") else { continue };
        let declared = declared.split_once("};").map_or(declared, |(declared, _)| declared);
        let joined: String = text.split_whitespace().collect();
        let named = |table: &&String| {
            let after = joined.split("figures.").skip(1);
            after
                .filter_map(|rest| rest.strip_prefix(table.as_str()))
                .any(|rest| !rest.starts_with(['_', '(']))
        };
        let missing = tables.iter().filter(named).filter(|table| !declared.contains(&format!("\"{table}\"")));
        found.extend(missing.map(|table| format!("{}: {table}", path.display())));
    }
    Ok(found)
}

/// The imports of a source, or of all sources of a folder.
fn gather(path: &Path, imports: &mut BTreeSet<String>) -> io::Result<()> {
    if path.is_dir() {
        return fs::read_dir(path)?.try_for_each(|entry| gather(&entry?.path(), imports));
    }
    let text = fs::read_to_string(path)?;
    let code: Vec<&str> = text.lines().filter(|line| !line.trim_start().starts_with("//")).collect();
    for rest in code.join("\n").split("crate::").skip(1) {
        match rest.strip_prefix('{') {
            Some(list) => imports.extend(heads(list)),
            None => imports.extend(head(rest)),
        }
    }
    Ok(())
}

/// The first names of what an import in braces lists, nested braces left out.
fn heads(list: &str) -> impl Iterator<Item = String> {
    let mut depth = 1;
    let mut level = String::new();
    for sign in list.chars() {
        match sign {
            '{' => depth += 1,
            '}' => depth -= 1,
            _ if depth == 1 => level.push(sign),
            _ => {}
        }
        if depth == 0 {
            break;
        }
    }
    level.split(',').filter_map(|path| head(path.trim())).collect::<Vec<_>>().into_iter()
}

fn head(path: &str) -> Option<String> {
    let end = path.find(|c: char| !c.is_alphanumeric() && c != '_').unwrap_or(path.len());
    (end > 0).then(|| path[..end].to_owned())
}

/// Takes away, again and again, what imports nothing that is left and what nothing left imports.
fn in_circles(mut imports: Imports) -> Vec<String> {
    loop {
        let left: BTreeSet<String> = imports.keys().cloned().collect();
        let imported: BTreeSet<String> =
            imports.values().flatten().filter(|module| left.contains(*module)).cloned().collect();
        imports.retain(|module, of| imported.contains(module) && of.iter().any(|i| left.contains(i)));
        if imports.len() == left.len() {
            return left.into_iter().collect();
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn imports(of: &[(&str, &[&str])]) -> Imports {
        let names = |list: &[&str]| list.iter().map(|i| (*i).to_owned()).collect();
        of.iter().map(|(module, list)| ((*module).to_owned(), names(list))).collect()
    }

    #[test]
    fn circles_are_what_stays() {
        let straight = imports(&[("tax", &["facts", "figures"]), ("facts", &["figures"]), ("figures", &[])]);
        assert!(in_circles(straight).is_empty());
        let round =
            imports(&[("tax", &["facts"]), ("facts", &["status"]), ("status", &["facts", "figures"])]);
        assert_eq!(in_circles(round), ["facts", "status"]);
    }

    #[test]
    fn the_heads_of_a_list_are_its_modules() {
        let list =
            "facts::{Facts, Own},\n    limits::MEDICAL, plan, status::{self, a::{b, c}},\n};\nuse other::{x}";
        assert_eq!(heads(list).collect::<Vec<_>>(), ["facts", "limits", "plan", "status"]);
        assert_eq!(head("tax::on(x)"), Some("tax".into()));
    }
}
