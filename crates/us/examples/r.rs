use hembo_core::*;
static R: Registry = Registry(&[&hembo_us::UnitedStates]);
fn main(){ for f in std::env::args().skip(1){ let h=check::read(&std::fs::read(&f).unwrap(),&R).unwrap_or_else(|e|{panic!("{e:#?}")});
 let o=reckon(&h,&R).unwrap(); println!("== {} total {} lowest {} balance {} lawful {} {}",o.together,o.total,o.lowest,o.balance,o.lawful_ways,o.covered);
 for w in o.ways.iter().take(4){println!("  {} {} +{}",w.name,w.total,w.more);}
 for s in &o.spread{println!(" # {}",s.title);for r in &s.rows{println!("   {:30} {:?} | {:?} {}",r.label,r.cells.iter().map(|c|c.as_ref().map(|c|c.amount.to_string()).unwrap_or("·".into())).collect::<Vec<_>>(),r.together.as_ref().map(|c|(c.amount.to_string(),c.lost.to_string())),if r.counts{""}else{"(not taken)"});}}
 for d in &o.decisions{println!(" ? {} {} worth {}",d.id,d.arises,d.worth);for p in &d.options{println!("     {} {:?} {:?} {:?}",p.label,p.best.map(|m|m.to_string()),p.more.map(|m|m.to_string()),p.barred);}}
 for p in &o.points{println!(" ! {:?} {} {}",p.weight,p.id,p.message);}
 for l in &o.limits{ if !l.lost.is_zero(){println!(" - {} {} lost {}",l.label,l.how,l.lost);}}
}}
