use hembo_ca::Canada;
use hembo_core::{
    Pack,
    search::{Stop, search},
};
use hembo_testing::ca::Family;
use std::{collections::BTreeMap, time::Instant};
fn main() {
    let f = Family::couple("AB", ["1957-03-03", "1960-06-06"])
        .pension("ada", "64000")
        .benefits("ada", "12000", "8700")
        .employed("bo", "81000")
        .interest("bo", "2400");
    let variants: Vec<(&str, Family)> = vec![
        ("split only", f.clone()),
        ("split+gifts", f.clone().gifts("ada", "24000")),
        (
            "split+gifts+contr",
            f.clone()
                .gifts("ada", "24000")
                .contributions("ada", "9000", "6000")
                .contributions("bo", "14000", "12000"),
        ),
        (
            "+tuition",
            f.clone()
                .gifts("ada", "24000")
                .contributions("ada", "9000", "6000")
                .contributions("bo", "14000", "12000")
                .tuition("bo", "3100"),
        ),
        (
            "+medical",
            f.clone()
                .gifts("ada", "24000")
                .contributions("ada", "9000", "6000")
                .contributions("bo", "14000", "12000")
                .tuition("bo", "3100")
                .medical("ada", &[("2025-02-01", "3400"), ("2025-09-01", "2100")]),
        ),
    ];
    let heavy = |province: &str, gifts: &str| {
        Family::couple(province, ["1957-03-03", "1960-06-06"])
            .pension("ada", "64000")
            .benefits("ada", "12000", "8700")
            .employed("bo", "81000")
            .interest("bo", "2400")
            .gifts("ada", gifts)
            .contributions("ada", "9000", "6000")
            .contributions("bo", "14000", "12000")
            .tuition("bo", "3100")
            .medical("ada", &[("2025-02-01", "3400"), ("2025-09-01", "2100")])
            .child("cy", "2010-03-03")
    };
    let mut variants = variants;
    for (p, g) in [("AB", "24000"), ("ON", "24000"), ("AB", "74000"), ("ON", "74000")] {
        variants.push((Box::leak(format!("heavy {p} {g}").into_boxed_str()), heavy(p, g)));
    }
    for (name, f) in variants {
        let h = f.household();
        let case = Canada.open(&h);
        let t = Instant::now();
        let w = search(&*case, &BTreeMap::new(), 24, &Stop::default()).unwrap();
        println!(
            "{name}: {:.1} ms lawful {} complete {}{}",
            t.elapsed().as_secs_f64() * 1e3,
            w.lawful,
            w.complete,
            ""
        );
    }
}
