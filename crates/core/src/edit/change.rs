//! What can be changed, and what a change gives.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::plane::Axis;
use crate::basis::words::Statement;
use crate::plan::divide::By;
use crate::plan::{Plan, Stage};
use crate::room::{BayRef, MixKind};

/// What to do with the plan's form.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Edit {
    /// Sets all that follows from living in a town: latitude, time zone, mains, currency, units, the
    /// last frost by estimate and the season around it.
    LiveAt {
        /// The town, as the list of homes names it.
        home: String,
        /// The day on which it is planned: the season is the next from then on.
        today: Date,
    },
    /// Sets the last frost, and the season around it.
    Anchor {
        /// The day after which frost is as likely as not to be over.
        last_frost: Date,
    },
    /// Gives a place as many lamps and mats as people own, spread over its tiers, in place of those
    /// that it has.
    Equip {
        /// The place.
        place: String,
        /// What it is to have.
        with: Equipment,
    },
    /// Hangs and lays in other bays what hangs and lies in one, in place of what was there.
    CopyGear {
        /// The bay that is copied.
        from: BayRef,
        /// The bays that get the same.
        to: Vec<BayRef>,
    },
    /// Places every tray on every day, the room as a whole.
    PlaceAll {
        /// As if none stood anywhere yet; else what stands stays, but for what has to make room.
        afresh: bool,
    },
    /// Sets how many plants are wanted of a sowing, and gives it as many trays as those take.
    Want {
        /// The sowing.
        sowing: String,
        /// Plants wanted.
        wanted: u32,
    },
    /// Adds a place of a generic kind at the right.
    AddPlace {
        /// The kind, as the shelf of kinds names it.
        kind: String,
    },
    /// Adds a tier where the place has most room for one.
    AddTier {
        /// The place.
        place: String,
    },
    /// Hangs a lamp of a generic kind in a bay.
    AddLamp {
        /// The bay.
        bay: BayRef,
        /// The kind.
        kind: String,
    },
    /// Lays a heat mat of a generic kind on a deck.
    AddMat {
        /// The bay.
        bay: BayRef,
        /// The kind.
        kind: String,
    },
    /// Puts a fan of a generic kind into a bay.
    AddFan {
        /// The bay.
        bay: BayRef,
        /// The kind.
        kind: String,
    },
    /// Takes a generic container into the plan's own formats.
    AddFormat {
        /// The kind.
        kind: String,
    },
    /// Fills a container of the plan with another mix, which makes it lighter or heavier.
    FillWith {
        /// The container.
        format: String,
        /// The mix.
        mix: MixKind,
    },
    /// Add another: copies places, tiers and gear, without the trays.
    Again {
        /// What to copy.
        things: Vec<Thing>,
    },
    /// Takes things out of the plan. Trays that stood there stay in the plan without a spot.
    Remove {
        /// What to take out.
        things: Vec<Thing>,
    },
    /// Moves a place along the row.
    MovePlace {
        /// The place.
        place: String,
        /// Its new index, from the left.
        to: usize,
    },
    /// Stands trays on free spots in a bay, from a stage on or from a date within it.
    StandTrays {
        /// The trays.
        trays: Vec<String>,
        /// From this stage on.
        stage: Stage,
        /// From this date on, in the middle of the stage; from its first day when left out.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        from: Option<Date>,
        /// The bay to stand in.
        bay: BayRef,
        /// Where in it; the first free spots when left out.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        onto: Option<Onto>,
    },
    /// Sets a tray on a box of its own where it stands on a date.
    BoxUnder {
        /// The tray.
        tray: String,
        /// A day on which it stands there.
        on: Date,
        /// Height of the box; none when left out.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        box_mm: Option<f64>,
    },
    /// Turns a tray a quarter where it stands on a date, on the same corner.
    TurnTray {
        /// The tray.
        tray: String,
        /// A day on which it stands there.
        on: Date,
    },
    /// Lets two trays change places where they stand on a date.
    SwapTrays {
        /// The one.
        tray: String,
        /// The other.
        with: String,
        /// A day on which both stand.
        on: Date,
    },
    /// Sows another crop, in as many trays as it takes.
    AddSowing {
        /// Whether the pots that it is potted on into are added too, where it usually is.
        #[serde(default)]
        pots: bool,
        /// The crop.
        crop: String,
        /// The variety; empty where nobody minds.
        #[serde(default)]
        variety: String,
        /// Plants wanted.
        wanted: u32,
        /// Whether it is raised for the autumn; the season is stretched for it.
        #[serde(default)]
        autumn: bool,
    },
    /// Sows the same again every so many days.
    RepeatSowing {
        /// The sowing.
        sowing: String,
        /// How many more.
        times: u32,
        /// Days from one to the next.
        every_days: u32,
    },
    /// Shares one flat among kinds, which are all sown on one day.
    ShareFlat(Share),
    /// Sows or pots a tray in another container of the plan's own.
    SetFormat {
        /// The tray.
        tray: String,
        /// The format.
        format: String,
    },
    /// Adds as many pots as the plants of a sowing take on the day they are potted on. They stand
    /// nowhere yet.
    PotOn {
        /// The sowing.
        sowing: String,
        /// Which of the plan's own formats; the nearest to what the crop wants when left out.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        format: Option<String>,
    },
    /// Adds a circuit, a socket, a strip, a timer or a chain of a generic kind.
    AddFeed {
        /// The kind.
        kind: String,
        /// The feed that it is plugged into; the first circuit or socket when left out.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        into: Option<String>,
    },
    /// Takes a feed out; what was plugged into it goes into what it was plugged into.
    RemoveFeed {
        /// The feed.
        feed: String,
    },
    /// Adds something else of the household.
    AddAppliance {
        /// What it is, in words.
        name: String,
        /// Power drawn at the plug.
        watts: f64,
    },
    /// Takes something of the household out.
    RemoveAppliance {
        /// The appliance.
        appliance: String,
    },
    /// Plugs in all lamps, mats and fans that are plugged in nowhere.
    ProposeWiring,
    /// Takes a sowing out, and the trays that hold nothing else.
    RemoveSowing {
        /// The sowing.
        sowing: String,
    },
}

/// How a flat is to be shared.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Share {
    /// The sowings, in the order of their rows.
    pub sowings: Vec<String>,
    /// A tray that is there; a new one when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tray: Option<String>,
    /// One of the plan's own formats; what suits the smallest when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub format: Option<String>,
    /// By rows or by packs.
    #[serde(default)]
    pub by: By,
    /// The same number of rows or packs for each, rather than as many as its plants want.
    #[serde(default)]
    pub even: bool,
}

/// What a place is to have in all.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Equipment {
    /// Kind of lamp; those that hang there stay when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lamp: Option<String>,
    /// How many lamps.
    #[serde(default)]
    pub lamps: u32,
    /// Kind of heat mat; those that lie there stay when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mat: Option<String>,
    /// How many mats.
    #[serde(default)]
    pub mats: u32,
    /// How many thermostats switch them; each after the first has a mat of its own, the first all
    /// the others.
    #[serde(default)]
    pub thermostats: u32,
}

/// Where in a bay a tray is wanted.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Onto {
    /// Its left edge on the deck; the free spot nearest to that is taken.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub x_mm: Option<f64>,
    /// Its front edge on the deck; anywhere when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub y_mm: Option<f64>,
    /// Which way its length runs, if that can be.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub along: Option<Axis>,
    /// On top of trays that stand there, while all germinate.
    #[serde(default)]
    pub stacked: bool,
}

/// Something in the room that can be picked.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Thing {
    /// The place it is, or is in.
    pub place: String,
    /// The tier it is, or is in; left out for a whole place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tier: Option<String>,
    /// The lamp, mat or fan it is; left out for a tier or a place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gear: Option<GearRef>,
}

/// Names a lamp, mat or fan within its tier.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GearRef {
    /// Which list it stands in.
    pub list: GearList,
    /// Its identifier there.
    pub id: String,
}

/// The lists of gear that a tier has.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GearList {
    /// Its lamps.
    Lamps,
    /// Its heat mats.
    Mats,
    /// Its fans.
    Fans,
}

/// A plan after an edit.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Edited {
    /// The new document.
    pub plan: Plan,
    /// What was done, for the history.
    pub word: Statement,
    /// What the edit made, to be picked next.
    pub made: Vec<Thing>,
}
