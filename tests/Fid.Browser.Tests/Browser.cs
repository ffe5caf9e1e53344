using System.Text.Json;
using Fid.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;
using OpenQA.Selenium.Support.UI;
using Shouldly;

namespace Fid.Browser.Tests;

/// <summary>Headless Chromium, looking at one Fid. Finds things as a reader does, by role and label, and waits for what it expects.</summary>
public sealed class Browser : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);
    private static readonly Lazy<string> Axe = new(() => File.ReadAllText(Path.Combine(Repository.Root, "web/node_modules/axe-core/axe.min.js")));

    private readonly Chromium _chromium;
    private readonly ChromeDriver _driver;
    private readonly Uri _address;

    public Browser(Uri address, int width = 1280, int height = 800, string language = "en-GB")
    {
        _address = address;
        _chromium = Chromium.Start(language);
        _driver = _chromium.Driver;
        Resize(width, height);
    }

    public string Address => new Uri(_driver.Url).PathAndQuery;

    public string Text => _driver.FindElement(By.TagName("body")).Text;

    public static Browser SignedIn(Uri address, string who, int width = 1280, int height = 800)
    {
        var browser = new Browser(address, width, height);
        browser.SignIn(who);
        // The page where the day begins stands, so that its keys are heard.
        browser.Until(() =>
            !browser.Address.StartsWith("/sign-in", StringComparison.Ordinal) && browser._driver.FindElements(By.TagName("h1")).Any(h => h.Displayed)
        );
        return browser;
    }

    public void SignIn(string who)
    {
        Open("/sign-in");
        Field("E-mail").SendKeys($"{who}@halyard.example");
        Field("Password").SendKeys(Fid.Testing.Caller.Password + Keys.Enter);
        Until(() => _driver.FindElements(By.TagName("header")).Count > 0);
    }

    public void Open(string path) => _driver.Navigate().GoToUrl(new Uri(_address, path));

    public void Reload() => _driver.Navigate().Refresh();

    public void Resize(int width, int height, double zoom = 1, bool dark = false)
    {
        Command(
            "Emulation.setDeviceMetricsOverride",
            new()
            {
                ["width"] = (int)(width / zoom),
                ["height"] = (int)(height / zoom),
                ["deviceScaleFactor"] = zoom,
                ["mobile"] = width < 500,
            }
        );
        Command(
            "Emulation.setEmulatedMedia",
            new()
            {
                ["features"] = new[]
                {
                    new Dictionary<string, object?> { ["name"] = "prefers-color-scheme", ["value"] = dark ? "dark" : "light" },
                },
            }
        );
    }

    /// <summary>The field with a label.</summary>
    public IWebElement Field(string label) =>
        See(
            () =>
                _driver
                    .FindElements(By.TagName("label"))
                    .Where(l => l.Displayed && l.Text.Trim() == label)
                    .Select(l => _driver.FindElement(By.Id(l.GetAttribute("for")!)))
                    .FirstOrDefault(),
            $"the field {label}"
        );

    /// <summary>The first box to tick whose label, seen or only said, begins with something.</summary>
    public IWebElement Checkbox(string label) =>
        See(
            () =>
                _driver
                    .FindElements(By.TagName("label"))
                    .FirstOrDefault(l => l.Displayed && l.Text.Trim().StartsWith(label, StringComparison.Ordinal))
                    ?.FindElement(By.CssSelector("input[type=checkbox]"))
                ?? _driver.FindElements(By.CssSelector($"input[type=checkbox][aria-label^=\"{label}\"]")).FirstOrDefault(b => b.Displayed),
            $"the box {label}"
        );

    /// <summary>The field with an id: where a label stands twice.</summary>
    public IWebElement Id(string id) => See(() => _driver.FindElements(By.Id(id)).FirstOrDefault(e => e.Displayed), $"the field {id}");

    /// <summary>The part of a value of several, by the name that is said of it, counted from 0.</summary>
    public IWebElement Part(string name, int number = 0) =>
        See(
            () =>
                _driver
                    .FindElements(By.CssSelector($"input[aria-label=\"{name}\"], select[aria-label=\"{name}\"], button[aria-label=\"{name}\"]"))
                    .Where(e => e.Displayed)
                    .ElementAtOrDefault(number),
            $"the part {name}, {number}"
        );

    /// <summary>Types over what stands in a part, and leaves it.</summary>
    public void Fill(string name, string text, int number = 0)
    {
        Part(name, number).SendKeys(Keys.Control + "a");
        Part(name, number).SendKeys(text + Keys.Tab);
    }

    /// <summary>Chooses a word in a part.</summary>
    public void Choose(string name, string word, int number = 0) => new SelectElement(Part(name, number)).SelectByText(word);

    /// <summary>Gives a file to the page, as choosing it would.</summary>
    public void Give(string path) => _driver.FindElement(By.CssSelector("input[type=file]")).SendKeys(path);

    /// <summary>What is wrong at a field.</summary>
    public void SeeAt(string label, string problem) => Until(() => NoteOf(label).Contains(problem, StringComparison.Ordinal), () => $"“{problem}” at {label}");

    /// <summary>What stands in a field.</summary>
    public string ValueOf(string label) => Field(label).GetDomProperty("value") ?? "";

    /// <summary>The small word under a field.</summary>
    public string NoteOf(string label) =>
        See(() => _driver.FindElements(By.Id(Field(label).GetAttribute("id") + "-note")).FirstOrDefault(), $"the note of {label}").Text;

    public IWebElement Button(string name) => See(() => Named("button, [role=button], summary", name), $"the button {name}");

    /// <summary>Presses the last button of this very name: in a dialog that asks about what one with the same name began.</summary>
    public void PressLast(string name) =>
        See(() => _driver.FindElements(By.TagName("button")).LastOrDefault(b => b.Displayed && b.Enabled && b.Text.Trim() == name), $"the button {name}")
            .Click();

    public IWebElement Link(string name) => See(() => Named("a", name), $"the link {name}");

    public IWebElement Heading(string beginning) =>
        See(
            () =>
                _driver
                    .FindElements(By.CssSelector("h1, h2, [role=heading]"))
                    .FirstOrDefault(h => h.Displayed && h.Text.StartsWith(beginning, StringComparison.Ordinal)),
            $"the heading {beginning}"
        );

    /// <summary>Presses a button of the item with a heading.</summary>
    public void PressIn(string heading, string button) =>
        See(() => Item(heading)?.FindElements(By.TagName("button")).FirstOrDefault(b => b.Text.Trim() == button), $"the button {button} at {heading}").Click();

    /// <summary>Waits for a text in the item with a heading.</summary>
    public void SeeIn(string heading, string text) =>
        Until(() => Item(heading)?.Text.Contains(text, StringComparison.Ordinal) == true, () => $"“{text}” at {heading}");

    private IWebElement? Item(string heading) =>
        _driver
            .FindElements(By.TagName("li"))
            .FirstOrDefault(i => i.FindElements(By.TagName("h2")).Any(h => h.Text.StartsWith(heading, StringComparison.Ordinal)));

    /// <summary>Lays out the fields of a record that are folded away because they are empty and may stay so.</summary>
    public void Unfold()
    {
        while (
            _driver.FindElements(By.TagName("button")).FirstOrDefault(b => b.Displayed && b.Text.EndsWith("more, empty", StringComparison.Ordinal)) is { } fold
        )
            fold.Click();
    }

    /// <summary>The row that holds a text.</summary>
    public IWebElement Row(string containing) =>
        See(
            () =>
                _driver
                    .FindElements(By.CssSelector("[role=row], [role=listitem], li"))
                    .FirstOrDefault(r => r.Text.Contains(containing, StringComparison.Ordinal)),
            $"a row with {containing}"
        );

    /// <summary>Picks an entry by typing part of it.</summary>
    public void Pick(string label, string typed, string entry)
    {
        var field = Field(label);
        field.Click();
        field.SendKeys(Keys.Control + "a");
        field.SendKeys(typed);
        See(
                () =>
                    _driver
                        .FindElements(By.CssSelector("[role=option]"))
                        .FirstOrDefault(o => o.Displayed && o.Text.StartsWith(entry, StringComparison.Ordinal)),
                $"the entry {entry}"
            )
            .Click();
        // A field that adds what is picked to others is empty again, or gone.
        if (entry != "")
            Until(() => ValueOf(label) == entry);
    }

    /// <summary>An entry that a field offers.</summary>
    public IWebElement Option(string beginning) =>
        See(
            () =>
                _driver
                    .FindElements(By.CssSelector("[role=option]"))
                    .FirstOrDefault(o => o.Displayed && o.Text.StartsWith(beginning, StringComparison.Ordinal)),
            $"the entry {beginning}"
        );

    /// <summary>What the first entry that a field offers says.</summary>
    public string FirstOption() => _driver.FindElements(By.CssSelector("[role=option]")).FirstOrDefault(o => o.Displayed)?.Text ?? "";

    /// <summary>Types over what stands in a field.</summary>
    public void Write(string label, string text)
    {
        var field = Field(label);
        field.SendKeys(Keys.Control + "a");
        field.SendKeys(Keys.Delete);
        // Whatever the text: keys that no keyboard has are put in as pasting would.
        if (text.All(c => c is >= ' ' and < '\uE000'))
            field.SendKeys(text);
        else
            Script("const [e, t] = arguments; e.value = t; e.dispatchEvent(new Event('input', { bubbles: true }))", field, text);
    }

    /// <summary>Pastes text into a field with an id, or into the page as a whole.</summary>
    public void Paste(string text, string? id = null) =>
        Script(
            """
            const [text, id] = arguments;
            const data = new DataTransfer();
            data.setData('text/plain', text);
            (id === null ? window : document.getElementById(id)).dispatchEvent(new ClipboardEvent('paste',
              { clipboardData: data, bubbles: true, cancelable: true }));
            """,
            text,
            id!
        );

    /// <summary>Whether a box with an id is ticked.</summary>
    public bool IsTicked(string id) => Id(id).GetDomProperty("checked") == "True";

    /// <summary>The id of what has the focus.</summary>
    public string? Focus() => _driver.SwitchTo().ActiveElement().GetAttribute("id");

    public void Press(string keys) => new Actions(_driver).SendKeys(keys).Perform();

    /// <summary>Takes what a selector finds with the mouse, and puts it so many pixels further right.</summary>
    public void Drag(string selector, int right) =>
        new Actions(_driver)
            .ClickAndHold(See(() => _driver.FindElements(By.CssSelector(selector)).FirstOrDefault(e => e.Displayed), selector))
            .MoveByOffset(right / 2, 0)
            .MoveByOffset(right - right / 2, 0)
            .Release()
            .Perform();

    public void Chord(string modifier, string key) => new Actions(_driver).KeyDown(modifier).SendKeys(key).KeyUp(modifier).Perform();

    public void SeeText(string text) => Until(() => Text.Contains(text, StringComparison.Ordinal), () => $"“{text}” in: {Text}");

    public void SeeNo(string text) => Until(() => !Text.Contains(text, StringComparison.Ordinal), () => $"no “{text}” in: {Text}");

    public void SeeAddress(string path) => Until(() => Address.StartsWith(path, StringComparison.Ordinal), () => $"{path}, not {Address}");

    public void Until(Func<bool> holds, Func<string>? what = null)
    {
        var wait = new WebDriverWait(_driver, Patience);
        wait.IgnoreExceptionTypes(typeof(StaleElementReferenceException), typeof(NoSuchElementException), typeof(ShouldAssertException));
        try
        {
            wait.Until(_ => holds());
        }
        catch (WebDriverTimeoutException)
        {
            throw new ShouldAssertException($"Did not see {what?.Invoke() ?? "what was expected"}. At {Address}:\n{Text}");
        }
    }

    /// <summary>Gives the browser a device that makes and uses passkeys, whose user always touches it.</summary>
    public void TakePasskeys() =>
        ((OpenQA.Selenium.VirtualAuth.IHasVirtualAuthenticator)_driver).AddVirtualAuthenticator(
            new OpenQA.Selenium.VirtualAuth.VirtualAuthenticatorOptions()
                .SetProtocol(OpenQA.Selenium.VirtualAuth.VirtualAuthenticatorOptions.Protocol.CTAP2)
                .SetTransport(OpenQA.Selenium.VirtualAuth.VirtualAuthenticatorOptions.Transport.INTERNAL)
                .SetHasUserVerification(true)
                .SetIsUserVerified(true)
        );

    public object? Script(string script, params object[] arguments) => _driver.ExecuteScript(script, arguments);

    /// <summary>No accessibility rule of any impact is violated, and nothing is cut off at the side.</summary>
    public void IsAccessible(string where)
    {
        Until(() => _driver.FindElements(By.CssSelector("[data-sonner-toast]")).Count == 0 || true);
        if (Script("return window.axe === undefined") is true)
            _driver.ExecuteScript(Axe.Value);
        var found = (string)
            _driver.ExecuteAsyncScript(
                """
                const done = arguments[0];
                axe.run(document, { resultTypes: ['violations'] }).then(
                  (r) => done(JSON.stringify(r.violations.map((v) => `${v.impact} ${v.id}:
                    ${v.nodes.map((n) => n.html.slice(0, 160) + ' ' + n.failureSummary).join(' | ')}`))),
                  (e) => done(JSON.stringify([String(e)])));
                """
            )!;
        JsonSerializer.Deserialize<string[]>(found).ShouldBeEmpty(where);
        Script("return document.documentElement.scrollWidth - document.documentElement.clientWidth").ShouldBe(0L, $"{where} is wider than its window");
    }

    /// <summary>What the console holds that should not be there.</summary>
    public IEnumerable<string> Complaints() =>
        _driver
            .Manage()
            .Logs.GetLog(LogType.Browser)
            .Where(l => l.Level >= LogLevel.Warning)
            .Select(l => l.Message)
            // The browser notes every refused call, the router every unknown address: that they are is what those tests are about.
            .Where(m => !m.Contains("Failed to load resource", StringComparison.Ordinal) && !m.Contains("Not found: /", StringComparison.Ordinal));

    public void Picture(string file) => ((ITakesScreenshot)_driver).GetScreenshot().SaveAsFile(file);

    /// <summary>Calls to addresses that match a pattern never arrive, from now on.</summary>
    public void CutOff(string pattern)
    {
        Command("Network.enable", []);
        Command("Network.setBlockedURLs", new() { ["urls"] = new[] { pattern } });
    }

    public void Dispose() => _chromium.Dispose();

    // In one question to the browser: some pages have hundreds of buttons.
    private IWebElement? Named(string css, string name) =>
        _driver.ExecuteScript(
            """
            const [css, name] = arguments;
            return [...document.querySelectorAll(css)].find((e) => {
              const text = e.innerText.trim();
              if ((e.ariaLabel ?? text.split('\n')[0]).trim() !== name && !text.startsWith(name)) return false;
              return e.checkVisibility({ opacityProperty: true, visibilityProperty: true }) && e.getClientRects().length > 0;
            });
            """,
            css,
            name
        ) as IWebElement;

    private IWebElement See(Func<IWebElement?> find, string what)
    {
        IWebElement? found = null;
        Until(() => (found = find()) is not null, () => what);
        return found!;
    }

    private void Command(string name, Dictionary<string, object?> parameters) => _driver.ExecuteCdpCommand(name, parameters);
}
