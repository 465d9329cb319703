//! The embedded front end's folder must exist even before it is built, so that the types can be
//! generated from the server first.

fn main() {
    let build = "../../web/build";
    std::fs::create_dir_all(build).expect("web/build can be made");
    println!("cargo:rerun-if-changed={build}");
}
