using System.Globalization;
using System.Net;
using System.Text.Json;
using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;
using OpenQA.Selenium.VirtualAuth;

namespace Mortar.Browser.Tests;

/// <summary>One browser of its own, as new: finds things by the names people see, and waits for them instead of sleeping.</summary>
internal sealed class Screen : IDisposable
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(15);

    /// <summary>How long it waits before it looks again, at first and at most: looking takes the very processor the page waits for.</summary>
    private static readonly (TimeSpan First, TimeSpan Most) Between = (
        TimeSpan.FromMilliseconds(10),
        TimeSpan.FromMilliseconds(80)
    );

    /// <summary>The first thing on the page that is shown, by a selector or a path: one question, which the page answers itself.</summary>
    private const string FirstShown = """
        const [kind, what] = arguments
        const isShown = (one) => {
          const drawn = one.closest('select') ?? one
          return drawn.checkVisibility({ opacityProperty: true, visibilityProperty: true }) && drawn.getClientRects().length > 0
        }
        if (kind === 'css selector') {
          for (const one of document.querySelectorAll(what)) if (isShown(one)) return one
          return null
        }
        // A snapshot: looking whether something is shown lays the page out, and an iterator throws where that changes it.
        const found = document.evaluate(what, document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE, null)
        for (let at = 0; at < found.snapshotLength; at++) if (isShown(found.snapshotItem(at))) return found.snapshotItem(at)
        return null
        """;

    private readonly ChromeDriver driver = Browsers.Take();
    private readonly Uri url;

    public Screen(Uri url, int width = 1280, int height = 800)
    {
        this.url = url;
        Resize(width, height);
    }

    private PointerInputDevice? hand;
    private string? authenticator;

    public string Path => new Uri(driver.Url).PathAndQuery;

    /// <summary>Makes the page itself that large, whatever the window's frame takes.</summary>
    public void Resize(int width, int height) =>
        driver.ExecuteCdpCommand(
            "Emulation.setDeviceMetricsOverride",
            new Dictionary<string, object?>(StringComparer.Ordinal)
            {
                ["width"] = width,
                ["height"] = height,
                ["deviceScaleFactor"] = 1,
                ["mobile"] = false,
            }
        );

    public Screen Open(string path = "/")
    {
        driver.Navigate().GoToUrl(new Uri(url, path));
        return this;
    }

    /// <summary>Has a demo person signed in, without the page on which they would be, and waits for the wall and its live line.</summary>
    public Screen SignIn(DemoPerson person)
    {
        foreach (System.Net.Cookie cookie in SignedIn(person))
        {
            driver.ExecuteCdpCommand(
                "Network.setCookie",
                new Dictionary<string, object?>(StringComparer.Ordinal)
                {
                    ["url"] = url.ToString(),
                    ["name"] = cookie.Name,
                    ["value"] = cookie.Value,
                    ["httpOnly"] = cookie.HttpOnly,
                }
            );
        }

        Open();
        WaitForWall();
        return this;
    }

    private CookieCollection SignedIn(DemoPerson person)
    {
        using var handler = new SocketsHttpHandler();
        using var client = new HttpClient(handler) { BaseAddress = url };
        using var asking = new HttpRequestMessage(HttpMethod.Get, "/api/session");
        using var session = JsonDocument.Parse(client.Send(asking).Content.ReadAsStream());
        using var coming = new HttpRequestMessage(HttpMethod.Post, $"/api/demo/session/{person.Id.Value}");
        coming.Headers.Add("X-Antiforgery", session.RootElement.GetProperty("antiforgeryToken").GetString());
        client.Send(coming).EnsureSuccessStatusCode();
        return handler.CookieContainer.GetCookies(url);
    }

    /// <summary>Goes to the week with the night open, where an hour is as high as every other.</summary>
    public Screen Week()
    {
        Show("Week");
        Find(By.CssSelector("[data-hours]"));
        Click("Open the night");
        Script("document.querySelector('[data-scroller]').scrollTop = 380");
        return this;
    }

    /// <summary>Shows one of the five views.</summary>
    public void Show(string view)
    {
        Click(By.XPath($"//nav[@aria-label='Views']//button[normalize-space()={Quoted(view)}]"));
        Find(By.XPath($"//nav[@aria-label='Views']//button[@aria-current='page'][normalize-space()={Quoted(view)}]"));
    }

    /// <summary>Signs out by the menu.</summary>
    public void SignOut() => Choose(By.CssSelector("header > div:last-child button"), "Sign out");

    /// <summary>Gives the browser a device that knows a finger when it is asked (Web Authentication, 11: virtual authenticators).</summary>
    public void HasAuthenticator() =>
        authenticator = driver.AddVirtualAuthenticator(
            new VirtualAuthenticatorOptions()
                .SetProtocol(VirtualAuthenticatorOptions.Protocol.CTAP2)
                .SetTransport(VirtualAuthenticatorOptions.Transport.INTERNAL)
                .SetHasResidentKey(true)
                .SetHasUserVerification(true)
                .SetIsUserVerified(true)
        );

    /// <summary>Signs out by the menu and in again as somebody else.</summary>
    public Screen SignInAgain(DemoPerson person)
    {
        SignOut();
        Click(Containing("button", person.Name));
        WaitForWall();
        return this;
    }

    public void WaitForWall()
    {
        Find(By.CssSelector("[data-brick]"));
        Find(By.CssSelector("html[data-live]"));
    }

    public static By Named(string element, string name) =>
        By.XPath($"//{element}[normalize-space()={Quoted(name)} or @aria-label={Quoted(name)}]");

    public static By Containing(string element, string text) =>
        By.XPath($"//{element}[contains(normalize-space(), {Quoted(text)})]");

    /// <summary>The control with that label.</summary>
    public static By Labelled(string label) => By.XPath($"//*[@id=//label[normalize-space()={Quoted(label)}]/@for]");

    public static By Brick(string title) => By.XPath($"//*[@data-brick][contains(normalize-space(), {Quoted(title)})]");

    /// <summary>Somebody's day on the roster.</summary>
    public static By Cell(string row, string day) => By.XPath($"{Row(row)}//*[@role='gridcell'][@data-cell='{day}']");

    /// <summary>A brick in somebody's row of the roster.</summary>
    public static By InRow(string row, string words) =>
        By.XPath($"{Row(row)}//*[@data-brick][contains(normalize-space(), {Quoted(words)})]");

    public static By Layer(string name) => By.CssSelector($"[data-layer=\"{name}\"]");

    /// <summary>Waits until it is there to be seen.</summary>
    public IWebElement Find(By by) =>
        Until(() => Script<IWebElement?>(FirstShown, by.Mechanism, by.Criteria), $"{by} to be there");

    public bool Has(By by) => driver.FindElements(by).Count > 0;

    public void WaitGone(By by) => Until(() => Has(by) ? null : driver, $"{by} to be gone");

    public void Click(By by) =>
        Until(
            () =>
            {
                try
                {
                    Find(by).Click();
                    return driver;
                }
                catch (Exception moved)
                    when (moved
                            is ElementClickInterceptedException
                                or StaleElementReferenceException
                                or ElementNotInteractableException
                    )
                {
                    if (moved is ElementClickInterceptedException)
                    {
                        // It may lie under what sticks to an edge: one scrolls on, by as much as the page keeps free there.
                        Script<object?>("arguments[0].scrollIntoView({ block: 'nearest' })", Find(by));
                    }

                    return null;
                }
            },
            $"{by} to be clicked"
        );

    public void Click(string button) => Click(Named("button", button));

    /// <summary>Opens a menu and takes one of its items.</summary>
    public void Choose(By menu, string item)
    {
        Click(menu);
        Click(
            By.XPath(
                $"//*[@role='menuitem'][normalize-space()={Quoted(item)} or .//*[normalize-space()={Quoted(item)}]]"
            )
        );
    }

    public void Type(string label, string text)
    {
        var field = Find(Labelled(label));
        field.SendKeys(Keys.Control + "a");
        field.SendKeys(Keys.Delete);
        field.SendKeys(text);
    }

    /// <summary>Puts text into a field as pasting does: at once, lines and all.</summary>
    public void Paste(string label, string text)
    {
        var field = Find(Labelled(label));
        field.Click();
        Script("arguments[0].focus(); document.execCommand('insertText', false, arguments[1])", field, text);
    }

    /// <summary>Types a date or time and leaves the field, so that it is read.</summary>
    public void Write(string label, string text)
    {
        Type(label, text);
        Find(Labelled(label)).SendKeys(Keys.Tab);
    }

    public void Pick(string label, string option)
    {
        var select = Find(Labelled(label));
        select.FindElement(By.XPath($"./option[normalize-space()={Quoted(option)}]")).Click();
    }

    /// <summary>Presses a key where the focus is.</summary>
    public void Go(string key) => new Actions(driver).SendKeys(key).Perform();

    /// <summary>What has the focus, as a screen reader says it: its name and what it is (WAI-ARIA, Accessible Name and Description Computation).</summary>
    public string Focus()
    {
        while (true)
        {
            try
            {
                return driver.SwitchTo().ActiveElement() is WebElement { TagName: not "body" } at
                    ? $"{at.ComputedAccessibleLabel}, {at.ComputedAccessibleRole}"
                    : string.Empty;
            }
            catch (StaleElementReferenceException)
            {
                // It was drawn anew between the two questions, and what is there by now has the focus.
            }
        }
    }

    /// <summary>Waits until what has the focus is that.</summary>
    public void Hears(string focus) =>
        Until(() => Focus() == focus, $"“{focus}” and not “{Focus()}” to have the focus");

    /// <summary>Waits until what has the focus begins like that.</summary>
    public void HearsFirst(string words) =>
        Until(
            () => Focus().StartsWith(words, StringComparison.Ordinal),
            $"“{words}…” and not “{Focus()}” to have the focus"
        );

    /// <summary>Waits until that is said aloud by itself, from one of the page's own places for it.</summary>
    public void IsTold(string sentence) =>
        Until(
            () =>
                Script<bool>(
                    "return [...document.querySelectorAll('[role=status], [role=alert], [aria-live]')].some((one) => one.textContent.includes(arguments[0]))",
                    sentence
                ),
            $"“{sentence}” to be said, and not “{Script<string>("return [...document.querySelectorAll('[role=status], [role=alert], [aria-live]')].map((one) => one.textContent).join(' | ')")}”"
        );

    /// <summary>Goes on by a key until those words are in what has the focus.</summary>
    public void GoUntil(string key, string focus)
    {
        var seen = new List<string>();
        while (!Focus().Contains(focus, StringComparison.Ordinal))
        {
            if (seen.Count > 120)
            {
                throw new Xunit.Sdk.XunitException($"Never came to “{focus}”: {string.Join(" | ", seen)}");
            }

            Go(key);
            seen.Add(Focus());
        }
    }

    /// <summary>Presses a key where no field has the focus.</summary>
    public void Press(string key)
    {
        Script("document.activeElement?.blur?.()");
        new Actions(driver).SendKeys(key).Perform();
    }

    /// <summary>Keys so fast after one another that nothing is drawn between them.</summary>
    public void PressAtOnce(params string[] keys) =>
        Script(
            "document.activeElement?.blur?.(); for (const key of arguments[0]) document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))",
            (object)keys
        );

    public void Keys_(IWebElement element, params string[] keys)
    {
        Script("arguments[0].focus()", element);
        foreach (var key in keys)
        {
            new Actions(driver).SendKeys(key).Perform();
        }
    }

    /// <summary>Draws from one time to another on the wall.</summary>
    public void Draw((int Day, double Hour) from, (int Day, double Hour) to) => Drag(Place(from), Place(to));

    /// <summary>Presses a point of the screen.</summary>
    public void PressAt(double x, double y) => Drag((x, y), (x, y));

    /// <summary>Draws across whole days.</summary>
    public void DrawDays(int first, int last)
    {
        var row = Rectangle("[data-all-day]");
        Drag((Place((first, 0)).X, row.Bottom - 4), (Place((last, 0)).X, row.Bottom - 4));
    }

    /// <summary>Takes a brick at its middle and puts it down days and hours away.</summary>
    public void Move(string title, int days, double hours)
    {
        var brick = Rectangle(Find(Brick(title)));
        var column = Rectangle("[data-hours]");
        var start = (X: (brick.Left + brick.Right) / 2, Y: (brick.Top + brick.Bottom) / 2);
        Drag(
            start,
            (start.X + (column.Right - column.Left) / 7 * days, start.Y + (column.Bottom - column.Top) / 24 * hours)
        );
    }

    /// <summary>Presses a key while another is held.</summary>
    public void Held(string held, string key) => new Actions(driver).KeyDown(held).SendKeys(key).KeyUp(held).Perform();

    /// <summary>Does something while the key for copying is held.</summary>
    public void Copying(Action act)
    {
        new Actions(driver).KeyDown(Keys.Control).Perform();
        act();
        new Actions(driver).KeyUp(Keys.Control).Perform();
    }

    /// <summary>Rests a finger on something until it is taken up, carries it over and lets it go.</summary>
    public void HoldAndCarry(By what, By where)
    {
        var from = Middle(what);
        var to = Rectangle(Find(where));
        var finger = new PointerInputDevice(PointerKind.Touch);
        var acts = new ActionSequence(finger);
        acts.AddAction(finger.CreatePointerMove(CoordinateOrigin.Viewport, (int)from.X, (int)from.Y, TimeSpan.Zero));
        acts.AddAction(finger.CreatePointerDown(MouseButton.Touch));
        acts.AddAction(finger.CreatePause(TimeSpan.FromMilliseconds(600)));
        acts.AddAction(
            finger.CreatePointerMove(
                CoordinateOrigin.Viewport,
                (int)to.Left + 40,
                (int)to.Bottom - 8,
                TimeSpan.FromMilliseconds(120)
            )
        );
        acts.AddAction(finger.CreatePointerUp(MouseButton.Touch));
        driver.PerformActions([acts]);
    }

    /// <summary>Moves a finger across, faster than it rests anywhere.</summary>
    public void Swipe((double X, double Y) from, (double X, double Y) to) => Finger(from, TimeSpan.Zero, to);

    /// <summary>Rests a finger somewhere until that is taken up or begun, carries it on where that is said, and lets it go.</summary>
    public void Hold((double X, double Y) at, (double X, double Y)? to = null) =>
        Finger(at, TimeSpan.FromMilliseconds(600), to);

    public void Tap((double X, double Y) at) => Finger(at, TimeSpan.Zero, null);

    private void Finger((double X, double Y) from, TimeSpan rests, (double X, double Y)? to)
    {
        var finger = new PointerInputDevice(PointerKind.Touch);
        var acts = new ActionSequence(finger);
        acts.AddAction(finger.CreatePointerMove(CoordinateOrigin.Viewport, (int)from.X, (int)from.Y, TimeSpan.Zero));
        acts.AddAction(finger.CreatePointerDown(MouseButton.Touch));
        if (rests > TimeSpan.Zero)
        {
            acts.AddAction(finger.CreatePause(rests));
        }

        if (to is { } there)
        {
            acts.AddAction(
                finger.CreatePointerMove(
                    CoordinateOrigin.Viewport,
                    (int)there.X,
                    (int)there.Y,
                    TimeSpan.FromMilliseconds(120)
                )
            );
        }

        acts.AddAction(finger.CreatePointerUp(MouseButton.Touch));
        driver.PerformActions([acts]);
    }

    /// <summary>Where something lies on the screen, in pixels.</summary>
    public (double Left, double Top, double Right, double Bottom) Box(By by) => Rectangle(Find(by));

    /// <summary>Lets every request take that much longer, as on a train.</summary>
    public void SlowDown(int milliseconds) => Network(isOff: false, milliseconds);

    /// <summary>Takes the browser off the network, or brings it back.</summary>
    public void Offline(bool isOff) => Network(isOff, milliseconds: 0);

    private void Network(bool isOff, int milliseconds)
    {
        driver.ExecuteCdpCommand("Network.enable", []);
        driver.ExecuteCdpCommand(
            "Network.emulateNetworkConditions",
            new Dictionary<string, object?>(StringComparer.Ordinal)
            {
                ["offline"] = isOff,
                ["latency"] = milliseconds,
                ["downloadThroughput"] = -1,
                ["uploadThroughput"] = -1,
            }
        );
    }

    /// <summary>Brings something to where it can be pressed. What the page put another in the place of meanwhile is looked for again.</summary>
    public (double X, double Y) Middle(By by)
    {
        Until(
            () =>
            {
                try
                {
                    Script("arguments[0].scrollIntoView({ block: 'center' })", Find(by));
                    return driver;
                }
                catch (StaleElementReferenceException)
                {
                    return null;
                }
            },
            $"{by} to be brought into view"
        );
        var box = Rectangle(Find(by));
        return ((box.Left + box.Right) / 2, (box.Top + box.Bottom) / 2);
    }

    /// <summary>Takes something up and carries it over many places, one every frame or so, and puts it down at the last.</summary>
    public void Carry((double X, double Y) from, IEnumerable<(double X, double Y)> over)
    {
        var mouse = new PointerInputDevice(PointerKind.Mouse);
        var acts = new ActionSequence(mouse);
        acts.AddAction(mouse.CreatePointerMove(CoordinateOrigin.Viewport, (int)from.X, (int)from.Y, TimeSpan.Zero));
        acts.AddAction(mouse.CreatePointerDown(MouseButton.Left));
        foreach (var (x, y) in over)
        {
            acts.AddAction(
                mouse.CreatePointerMove(CoordinateOrigin.Viewport, (int)x, (int)y, TimeSpan.FromMilliseconds(16))
            );
        }

        acts.AddAction(mouse.CreatePointerUp(MouseButton.Left));
        driver.PerformActions([acts]);
    }

    /// <summary>Takes something up and carries it somewhere, and keeps it in the hand until <see cref="PutDown"/>.</summary>
    public void TakeUp((double X, double Y) from, (double X, double Y) to)
    {
        hand = new PointerInputDevice(PointerKind.Mouse);
        var acts = new ActionSequence(hand);
        acts.AddAction(hand.CreatePointerMove(CoordinateOrigin.Viewport, (int)from.X, (int)from.Y, TimeSpan.Zero));
        acts.AddAction(hand.CreatePointerDown(MouseButton.Left));
        acts.AddAction(
            hand.CreatePointerMove(CoordinateOrigin.Viewport, (int)to.X, (int)to.Y, TimeSpan.FromMilliseconds(100))
        );
        driver.PerformActions([acts]);
    }

    public void PutDown()
    {
        var acts = new ActionSequence(hand!);
        acts.AddAction(hand!.CreatePointerUp(MouseButton.Left));
        driver.PerformActions([acts]);
    }

    /// <summary>Takes a brick of the roster and puts it down in somebody's day.</summary>
    public void DragToCell(string title, string row, string day)
    {
        var brick = Rectangle(Find(Brick(title)));
        var cell = Rectangle(Find(Cell(row, day)));
        Drag((brick.Left + 50, (brick.Top + brick.Bottom) / 2), (cell.Left + 50, cell.Bottom - 8));
    }

    /// <summary>Opens an event on the desk and lays it there to be changed.</summary>
    public void Change(string title)
    {
        Click(Brick(title));
        Click("Change");
    }

    /// <summary>Takes a brick at its lower edge and lengthens it.</summary>
    public void Stretch(string title, double hours)
    {
        var brick = Rectangle(Find(Brick(title)));
        var column = Rectangle("[data-hours]");
        var start = (X: (brick.Left + brick.Right) / 2, Y: brick.Bottom - 3);
        Drag(start, (start.X, start.Y + (column.Bottom - column.Top) / 24 * hours));
    }

    /// <param name="words">"all day", or "10:00 to 12:30".</param>
    /// <summary>Waits until it is kept: what is only carried, or still being written, is not.</summary>
    public void WaitForBrick(string title, string words) => Find(BrickAt(title, words));

    private static By BrickAt(string title, string words) =>
        By.XPath(
            $"//*[@data-brick][not(@data-hand='carried')][contains(normalize-space(), {Quoted($"{words}, {title}")})]"
        );

    public string Text(By by) => Find(by).Text;

    /// <summary>Waits until the page is called that.</summary>
    public void Title(string title) => Until(() => driver.Title == title ? driver : null, $"the title {title}");

    public void Back() => driver.Navigate().Back();

    public void WaitForText(string text) =>
        Find(By.XPath($"//*[contains(normalize-space(), {Quoted(text)})][not(self::html or self::body)]"));

    public T Script<T>(string script, params object[] arguments) =>
        (T)((IJavaScriptExecutor)driver).ExecuteScript(script, arguments)!;

    public void Script(string script, params object[] arguments) =>
        ((IJavaScriptExecutor)driver).ExecuteScript(script, arguments);

    /// <summary>Shows the page as it stands in light or dark, once its colours have gone over to that.</summary>
    public void Theme(string theme) =>
        ((IJavaScriptExecutor)driver).ExecuteAsyncScript(
            """
            const [theme, done] = arguments
            document.documentElement.dataset.theme = theme
            const going = document.getAnimations().filter((one) => one instanceof CSSTransition)
            Promise.allSettled(going.map((one) => one.finished)).then(() => done())
            """,
            theme
        );

    /// <summary>The serious findings of axe on the page as it stands, one a line.</summary>
    /// <param name="rule">The one rule to look with; all where none is named.</param>
    public string Axe(string? rule = null)
    {
        if (!Script<bool>("return 'axe' in window"))
        {
            Script(File.ReadAllText(System.IO.Path.Combine(Repository.Root, "web/node_modules/axe-core/axe.min.js")));
        }

        var found = (string)
            ((IJavaScriptExecutor)driver).ExecuteAsyncScript(
                """
                const done = arguments[arguments.length - 1]
                axe.run(document, { resultTypes: ['violations'], ...(arguments[0] && { runOnly: [arguments[0]] }) }).then(
                  (result) => done(JSON.stringify(result.violations.filter((one) => ['serious', 'critical'].includes(one.impact))
                    .map((one) => `${one.id}: ${one.nodes.map((node) => node.html + ' ' + node.failureSummary).join(' | ')}`))),
                  (error) => done(JSON.stringify([String(error)])))
                """,
                rule!
            )!;
        return string.Join('\n', JsonSerializer.Deserialize<string[]>(found)!);
    }

    /// <summary>What the browser complained of: refused scripts, failed requests, errors.</summary>
    public IReadOnlyList<string> Complaints() =>
        [.. driver.Manage().Logs.GetLog(LogType.Browser).Select(entry => entry.Message)];

    /// <summary>What the page asked of any other place than this Mortar.</summary>
    public IReadOnlyCollection<object> RequestsElsewhere() =>
        Script<IReadOnlyCollection<object>>(
            "return performance.getEntriesByType('resource').map((one) => one.name).filter((name) => !name.startsWith(location.origin))"
        );

    /// <summary>Does something inside a frame of the page.</summary>
    public T InFrame<T>(By frame, Func<T> act)
    {
        driver.SwitchTo().Frame(Find(frame));
        try
        {
            return act();
        }
        finally
        {
            driver.SwitchTo().DefaultContent();
        }
    }

    /// <summary>Waits for words inside a frame, which may be drawn anew meanwhile.</summary>
    public void WaitForTextIn(By frame, string text) =>
        Until(
            () =>
            {
                try
                {
                    return InFrame(frame, () => driver.FindElements(Containing("body", text)).Count > 0)
                        ? driver
                        : null;
                }
                catch (Exception gone)
                    when (gone is NoSuchFrameException or NoSuchWindowException or WebDriverException)
                {
                    return null;
                }
            },
            $"“{text}” in {frame}"
        );

    /// <summary>Goes on at another website.</summary>
    public Screen At(Uri website)
    {
        driver.Navigate().GoToUrl(website);
        return this;
    }

    /// <summary>Lets pages run scripts, or not, as from the next page on.</summary>
    public void Scripts(bool allowed) =>
        driver.ExecuteCdpCommand(
            "Emulation.setScriptExecutionDisabled",
            new Dictionary<string, object?>(StringComparer.Ordinal) { ["value"] = !allowed }
        );

    /// <summary>Has the browser refuse cookies of other websites than the one that is open, until it is given back.</summary>
    public void BlockThirdPartyCookies()
    {
        driver.ExecuteCdpCommand("Network.enable", []);
        driver.ExecuteCdpCommand(
            "Network.setCookieControls",
            new Dictionary<string, object?>(StringComparer.Ordinal)
            {
                ["enableThirdPartyCookieRestriction"] = true,
                ["disableThirdPartyCookieMetadata"] = true,
                ["disableThirdPartyCookieHeuristics"] = true,
            }
        );
    }

    /// <summary>How many cookies of whatever place there are.</summary>
    public int CookieCount() =>
        (
            (IReadOnlyCollection<object>)
                ((Dictionary<string, object>)driver.ExecuteCdpCommand("Network.getAllCookies", [])!)["cookies"]
        ).Count;

    /// <summary>Waits until something holds.</summary>
    public void Until(Func<bool> holds, string what) => Until(() => holds() ? driver : null, what);

    /// <summary>The page as it prints where nothing is chosen: without backgrounds, as browsers do.</summary>
    public Printed Print() =>
        new(
            Convert.FromBase64String(
                (string)
                    (
                        (Dictionary<string, object>)
                            driver.ExecuteCdpCommand(
                                "Page.printToPDF",
                                new Dictionary<string, object?>(StringComparer.Ordinal)
                                {
                                    ["printBackground"] = false,
                                    ["preferCSSPageSize"] = true,
                                }
                            )!
                    )["data"]
            )
        );

    /// <summary>Where files go that are saved from here on.</summary>
    public void SaveTo(string folder) =>
        driver.ExecuteCdpCommand(
            "Page.setDownloadBehavior",
            new Dictionary<string, object?>(StringComparer.Ordinal)
            {
                ["behavior"] = "allow",
                ["downloadPath"] = folder,
            }
        );

    /// <summary>Takes a picture to look at, where a folder for them is named.</summary>
    public static void Shot(Screen screen, string name)
    {
        if (Environment.GetEnvironmentVariable("SHOTS") is { } folder)
        {
            Directory.CreateDirectory(folder);
            screen.Photograph(System.IO.Path.Combine(folder, $"{name}.png"));
        }
    }

    public void Photograph(string file) => driver.GetScreenshot().SaveAsFile(file);

    /// <summary>A picture of the page as base64 (RFC 4648, 4).</summary>
    public string Picture() => driver.GetScreenshot().AsBase64EncodedString;

    /// <summary>Several pictures of a phone beside each other, as one.</summary>
    public void PhotographBeside(IReadOnlyList<string> pictures, string file)
    {
        driver.Navigate().GoToUrl("about:blank");
        Resize((pictures.Count * 400) + 10, 864);
        Script(
            """
            document.body.style = 'margin: 10px; display: flex; gap: 10px; background: #8a9499'
            for (const one of arguments[0]) document.body.append(Object.assign(new Image(), { src: `data:image/png;base64,${one}` }))
            """,
            pictures
        );
        Until(
            () => Script<bool>("return [...document.images].every((one) => one.complete && one.naturalWidth > 0)"),
            "the pictures"
        );
        Photograph(file);
    }

    public void Dispose()
    {
        if (authenticator is { } device)
        {
            driver.RemoveVirtualAuthenticator(device);
        }

        Browsers.GiveBack(driver);
    }

    public void Drag((double X, double Y) from, (double X, double Y) to)
    {
        var mouse = new PointerInputDevice(PointerKind.Mouse);
        var acts = new ActionSequence(mouse);
        acts.AddAction(mouse.CreatePointerMove(CoordinateOrigin.Viewport, (int)from.X, (int)from.Y, TimeSpan.Zero));
        acts.AddAction(mouse.CreatePointerDown(MouseButton.Left));
        acts.AddAction(
            mouse.CreatePointerMove(
                CoordinateOrigin.Viewport,
                (int)((from.X + to.X) / 2),
                (int)((from.Y + to.Y) / 2),
                TimeSpan.FromMilliseconds(60)
            )
        );
        acts.AddAction(
            mouse.CreatePointerMove(CoordinateOrigin.Viewport, (int)to.X, (int)to.Y, TimeSpan.FromMilliseconds(60))
        );
        acts.AddAction(mouse.CreatePointerUp(MouseButton.Left));
        driver.PerformActions([acts]);
    }

    private (double X, double Y) Place((int Day, double Hour) at)
    {
        var box = Rectangle("[data-hours]");
        return (
            box.Left + ((box.Right - box.Left) / 7 * (at.Day + 0.5)),
            box.Top + ((box.Bottom - box.Top) / 24 * at.Hour)
        );
    }

    private (double Left, double Top, double Right, double Bottom) Rectangle(string selector) =>
        Rectangle(Find(By.CssSelector(selector)));

    private (double Left, double Top, double Right, double Bottom) Rectangle(IWebElement element)
    {
        var box = Script<IReadOnlyCollection<object>>(
                "const b = arguments[0].getBoundingClientRect(); return [b.left, b.top, b.right, b.bottom]",
                element
            )
            .Select(side => Convert.ToDouble(side, CultureInfo.InvariantCulture))
            .ToList();
        return (box[0], box[1], box[2], box[3]);
    }

    private T Until<T>(Func<T?> ask, string what)
        where T : class
    {
        var limit =
            TimeProvider.System.GetTimestamp() + (long)(Patience.TotalSeconds * TimeProvider.System.TimestampFrequency);
        var wait = Between.First;
        do
        {
            try
            {
                if (ask() is { } found)
                {
                    return found;
                }
            }
            catch (StaleElementReferenceException)
            {
                // The page drew it anew between finding and looking; look again.
            }

            Thread.Sleep(wait);
            wait = wait * 1.5 < Between.Most ? wait * 1.5 : Between.Most;
        } while (TimeProvider.System.GetTimestamp() < limit);

        throw new Xunit.Sdk.XunitException(
            $"Waited for {what}, at {driver.Url}. Bricks: {string.Join(" | ", driver.FindElements(By.CssSelector("[data-brick]")).Select(one => one.GetAttribute("textContent")))} Complaints: {string.Join(' ', Complaints())}"
        );
    }

    private static string Row(string name) =>
        $"//*[@role='row'][.//*[@role='rowheader'][contains(normalize-space(), {Quoted(name)})]]";

    private static string Quoted(string text) =>
        text.Contains('\'', StringComparison.Ordinal) ? $"\"{text}\"" : $"'{text}'";
}
