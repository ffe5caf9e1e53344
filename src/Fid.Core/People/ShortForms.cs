namespace Fid.Core.People;

/// <summary>Given names and the short forms they go by, folded: written for this, from what is in common use around the North Sea
/// and beyond. A short form may stand for several names.</summary>
internal static class ShortForms
{
    private static readonly string[] Families =
    [
        "alexander alex sandy sasha alec xander",
        "alexandra alex sandra sasha",
        "andreas andrew andy andre",
        "anthony tony antonio anton toni",
        "benjamin ben benny",
        "catherine katherine kathrin katharina catriona kate katie cathy kathy kat katrin kitty",
        "charles charlie chuck karl",
        "christina christine kirsten chris tina christa",
        "christopher christoph christian chris kit",
        "daniel dan danny dani",
        "david dave davey",
        "deborah debbie debra",
        "edward ed eddie ted ned eduard",
        "elizabeth elisabeth liz lizzie beth betty eliza elsa lisa lise lisbeth",
        "eleanor elena ellen nell nora leonora",
        "francis francisco frank franz paco",
        "franziska frances fran franzi",
        "frederick friedrich fred freddie fritz",
        "gabriel gabe",
        "gabriele gabriella gaby gabi",
        "gerald gerard gerry jerry gerd gerhard",
        "gregory greg",
        "heinrich henry harry heinz heiner hal",
        "isabel isabella bella izzy",
        "jacob jakob jake james jim jimmy jamie",
        "jennifer jen jenny",
        "jessica jess jessie",
        "johannes john jon johnny hans jan jack ian sean",
        "jonathan jon jonny",
        "joseph josef joe joey jo pepe",
        "judith judy",
        "kenneth ken kenny",
        "lawrence laurence lars larry lorenz",
        "leonard leonhard leo len lenny",
        "magdalena lena magda",
        "margaret margarete maggie meg peggy grete gretel greta rita",
        "maria mary marie mia molly",
        "matthew matthias matt matti",
        "maximilian max",
        "michael mike mick michel mikhail misha mischa",
        "natalia natalie nat natasha",
        "nicholas nikolaus nick nico klaus nikolai nicky",
        "oliver ollie olli",
        "patricia pat patty tricia trish",
        "patrick pat paddy padraig",
        "peter pete pieter piet petra",
        "philip philipp phil pip",
        "rebecca becky becca",
        "richard rick dick rich ricky",
        "robert rob bob bobby robbie bert",
        "ronald ron ronnie",
        "samuel sam sammy",
        "samantha sam",
        "sebastian seb basti bastian",
        "stephen steven stefan steffen steve",
        "susan susanne susanna sue susie suzy",
        "terence terry",
        "theodore theodor theo ted",
        "theresa therese tess tessa resi",
        "thomas tom tommy",
        "timothy tim timmy",
        "ulrich uli",
        "ursula uschi ulla",
        "veronica veronika vera ronnie vroni",
        "victoria vicky tori",
        "vincent vince vincenz",
        "walter walt wally",
        "william wilhelm will bill billy willy wim liam",
        "wolfgang wolf",
        "zachary zach zack",
    ];

    private static readonly Dictionary<string, int[]> Groups = Families
        .SelectMany((family, group) => family.Split(' ').Select(name => (name, group)))
        .GroupBy(n => n.name, n => n.group, StringComparer.Ordinal)
        .ToDictionary(g => g.Key, g => g.ToArray(), StringComparer.Ordinal);

    /// <summary>The families that a folded given name may be a form of: two that have one in common may be forms of one name.</summary>
    public static int[] FamiliesOf(string name) => Groups.GetValueOrDefault(name, []);
}
