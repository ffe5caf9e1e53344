using Fid.Core.Texts;

namespace Fid.Demo;

/// <summary>Made-up names from many languages, each given once, in an order that the seed decides.</summary>
internal sealed class DemoNames(int seed)
{
    private static readonly string[] Given =
    [
        "Aoife", "Tadhg", "Niamh", "Fergus", "Sorcha", "Cathal", "Orlaith", "Donncha", "Anneke", "Joost", "Femke", "Sander", "Agnieszka", "Paweł", "Zofia", "Mirek",
        "Oluwaseun", "Chidinma", "Emeka", "Ngozi", "Amara", "Kwabena", "Efua", "Kofi", "Lerato", "Sipho", "Nandi", "Tumelo", "Haruka", "Daichi", "Yui", "Kenta",
        "Priya", "Arjun", "Meera", "Vikram", "Leila", "Reza", "Shirin", "Dariush", "Elif", "Mehmet", "Zeynep", "Emre", "Ingrid", "Håkon", "Solveig", "Eirik",
        "Camila", "Thiago", "Lucía", "Joaquín", "Beatriz", "Duarte", "Inês", "Rui", "Oksana", "Taras", "Halyna", "Bohdan", "Giulia", "Pietro", "Chiara", "Luca",
        "Maëlle", "Yann", "Océane", "Loïc", "Katrin", "Jürgen", "Friederike", "Björn", "Mái", "Tuấn", "Linh", "Khánh", "Salma", "Youssef", "Amina", "Tariq",
        "Ilse", "Matej", "Petra", "Davor", "Siân", "Rhys", "Cerys", "Gethin", "Ana-Maria", "Ionuț", "Ruxandra", "Vlad", "Kaia", "Toomas", "Liisa", "Märt",
        "Hana", "Noam", "Tamar", "Eitan", "Mei", "Jian", "Xiulan", "Wei",
    ];

    private static readonly string[] Family =
    [
        "O'Driscoll", "Mac Giolla", "Tierney", "Brannigan", "Quilty", "Hanafin", "Loughlin", "Scully", "van der Wal", "Hoekstra", "de Vries-Bakker", "Postma", "Wolny",
        "Kaczmarek", "Sikora", "Wrona", "Adeyinka", "Okonjo", "Eze", "Balogun", "Mensah", "Owusu", "Boateng", "Maseko", "Dlamini", "Khumalo", "Molefe", "Ishikawa",
        "Morita", "Takeda", "Fujimoto", "Raghavan", "Deshpande", "Kulkarni", "Bose", "Farahani", "Rostami", "Azizi", "Yıldız", "Demirci", "Aksoy", "Kaplan", "Aakre",
        "Solberg", "Nygård", "Hauge", "Paredes", "Ibáñez", "Quiroga", "Figueroa", "Carvalho", "Teixeira", "Moutinho", "Kovalenko", "Shevchuk", "Bondar", "Ferri",
        "Galli", "Moretti", "Le Gall", "Kerbrat", "Guivarc'h", "Brückner", "Weiß", "Lindemann", "Nguyễn", "Phạm", "Đặng", "El Amrani", "Haddad", "Benali", "Novak",
        "Horvat", "Kovač", "Prys", "Gwynne", "Llewelyn", "Popa", "Dumitrescu", "Ionescu", "Tamm", "Saar", "Kask", "Ben-Ami", "Peled", "Zhou", "Liang", "Tan",
    ];

    private readonly Random _random = new(seed);
    private readonly HashSet<(string, string)> _given = [];

    public Random Random => _random;

    public (string Given, string Family) Next()
    {
        while (true)
        {
            var name = (Given[_random.Next(Given.Length)], Family[_random.Next(Family.Length)]);
            // In a firm of thousands the pairs run out: then a second given name goes between.
            if (_given.Count > 4000) name.Item1 += " " + Given[_random.Next(Given.Length)];
            if (_given.Add(name)) return name;
        }
    }

    public static string Email(string given, string family, string domain)
    {
        var local = new string([.. TextRules.Fold($"{given}.{family}").Select(c => c switch { 'ł' => 'l', 'đ' => 'd', 'ı' => 'i', 'ø' => 'o', 'ß' => 's', _ => c }).Where(c => char.IsAsciiLetterOrDigit(c) || c is '.' or '-')]);
        return $"{local}@{domain}";
    }
}
