//! What growers say against what the model says: the tables in docs/practice.md.

mod airs;
mod growth;
mod light;
mod warmth;

const DOC: &str = "../../docs/practice.md";

const HEAD: &str = "| growers say | the model finds | how well they agree |\n|---|---|---|\n";

fn row(said: &str, finds: String, remark: &str) -> String {
    format!("| {said} | {finds} | {remark} |\n")
}

#[test]
fn the_tables_of_common_practice_are_what_the_model_finds() {
    let fresh = format!(
        "# What growers say, and what the model says\n\n\
         Common practice, no source, in the first column; the second is computed from `core` by \
         `crates/core/tests/practice/`, which fails when these tables are stale (run it with \
         `UPDATE_DOCS=1` to write them anew).\n\n{}\n{}\n{}\n{}",
        light::table(),
        warmth::table(),
        airs::table(),
        growth::table()
    );
    if std::env::var_os("UPDATE_DOCS").is_some() {
        std::fs::write(DOC, &fresh).unwrap();
    }
    let written = std::fs::read_to_string(DOC).unwrap();
    assert_eq!(written, fresh, "run this test with UPDATE_DOCS=1");
}
