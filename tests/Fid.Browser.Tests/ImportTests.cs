using OpenQA.Selenium;
using Shouldly;
using Xunit;

namespace Fid.Browser.Tests;

/// <summary>Filling a list from a sheet, and setting up an empty firm.</summary>
public class ImportTests(PageFixture firm) : IClassFixture<PageFixture>
{
    [Fact]
    public void A_sheet_is_looked_at_mended_taken_and_undone()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("fid-sheet-").FullName, "yard jobs.csv");
        File.WriteAllText(file, "Job code;Titel;Stufe\nYJ-1;Schiffsmaler;C-2\nYJ-2;Segelmacher;C-2\nYJ-3;Taucher;C3\nDK-2;Decksmann;C2\n");
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/lists/jobs");
        orla.Link("Fill from a spreadsheet").Click();
        orla.SeeText("Nothing changes before you have seen what every row would do.");
        orla.Give(file);
        orla.Heading("yard jobs.csv → Jobs");
        orla.SeeText("1 new, 1 changed");
        orla.SeeText("was Deckhand");
        orla.Button("not right 2").Click();
        orla.Button("for all “C-2”").Click();
        orla.SeeText("3 new, 1 changed");
        orla.Button("All 4").Click();
        orla.Button("Titel, row 3: Taucher").Click();
        orla.Part("Titel, row 3").SendKeys(Keys.Control + "a");
        orla.Part("Titel, row 3").SendKeys("Berufstaucher" + Keys.Enter);
        orla.SeeText("Berufstaucher");
        orla.Button("Put all 4 rows in").Click();
        orla.SeeText("3 new and 1 changed entries are in the list.");
        orla.Link("To the list").Click();
        orla.SeeText("Berufstaucher");
        orla.Link("Exchange").Click();
        orla.SeeText("is in");
        orla.Link("yard jobs.csv").Click();
        orla.Button("Undo the whole import").Click();
        orla.SeeText("was undone");
        orla.Open("/lists/jobs");
        orla.SeeText("Deckhand");
        orla.SeeNo("Berufstaucher");
        orla.Complaints().ShouldBeEmpty();
        Directory.Delete(Path.GetDirectoryName(file)!, recursive: true);
    }

    [Fact]
    public void Causes_stand_before_what_follows_from_them_and_the_reader_stays_where_they_mend()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/exchange/new?list=departments");
        orla.SeeText("Drop a file here, paste cells, or choose one");
        orla.Paste("Code\tName\tPart of\tCost centre\nlooms\tLooms\tweavers\t\nweavers\tWeavers\toffice\tno-such\nsheds\tSheds\tlooms\tno-such\n");
        orla.Button("not right 3").Click();
        orla.SeeText("follows from row 2");
        orla.IsAccessible("a sheet with mistakes");
        // Two cells in a row, the second while the rows are still being checked for the first.
        foreach (var row in new[] { 2, 3 })
        {
            orla.Button($"Cost centre, row {row}: no-such").Click();
            orla.Part($"Cost centre, row {row}").SendKeys(Keys.Control + "a");
            orla.Part($"Cost centre, row {row}").SendKeys(Keys.Backspace + Keys.Enter);
            orla.Focus().ShouldBe($"cell-{row}/3");
        }
        orla.SeeText("3 new, 0 changed");
        orla.Focus().ShouldBe("cell-3/3");
        orla.SeeText("Sheds");
        orla.Button("Give up").Click();
        orla.Heading("Exchange");
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void A_sheet_of_people_corrects_a_record_and_opens_a_hire()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/exchange/new?list=people");
        orla.SeeText("Get everybody’s record as a sheet");
        orla.Paste(
            "Employee number\tRole template\tStart\tGiven name\tFamily name\tE-mail\tSite\tTown\n1003\t\t\t\t\t\t\tNew "
                + "Quay\n\tDeckhand\t2027-05-03\tAma\tOsei\tama.osei@example.org\tSkerry Pier\t\n\tDeckhand\t\tBo\tLund\tbo.lund@example.org\tSkerry "
                + "Peer\t\n"
        );
        orla.Heading("pasted cells → People");
        orla.SeeText("1 new, 1 changed");
        orla.SeeText("Say when the person starts.");
        orla.SeeText("Left empty, it corrects what is there.");
        orla.Button("Put only the 2 good rows in").Click();
        orla.SeeText("One hire was opened. One record was changed.");
        orla.Link("To Arrivals").Click();
        orla.SeeText("Ama Osei");
        orla.Complaints().ShouldBeEmpty();
    }

    [Fact]
    public void Cells_are_pasted_and_a_file_that_is_no_sheet_is_refused_with_a_reason()
    {
        using var orla = Browser.SignedIn(firm.Server.Address, "orla");
        orla.Open("/exchange/new?list=teams");
        orla.SeeText("Drop a file here, paste cells, or choose one");
        orla.Paste("Code\tName\nRIG\tRiggers\n");
        orla.Heading("pasted cells → Teams");
        orla.SeeText("1 new, 0 changed");

        var file = Path.GetTempFileName();
        File.WriteAllBytes(file, [0x89, 0x50, 0x4E, 0x47, 0, 0, 0, 1]);
        orla.Open("/exchange/new?list=teams");
        orla.SeeText("Choose a file");
        orla.Give(file);
        orla.SeeText("This is no sheet. Choose a .csv, .tsv or .xlsx file.");
        orla.Button("Give up").Click();
        orla.Heading("Exchange");
        File.Delete(file);
    }
}
