using Mortar.Server.Features.Demo;
using Mortar.Server.Tests;
using OpenQA.Selenium;
using Xunit;
using static Mortar.Browser.Tests.Screen;

namespace Mortar.Browser.Tests;

/// <summary>A forgotten password is not final; played in two browsers.</summary>
public class AccountTests
{
    [Fact]
    public async Task An_account_is_deleted_once_all_it_keeps_alone_is_handed_on_and_what_was_written_stays()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var api = await mortar.As(DemoPeople.Ines);
        var calendar = await api.MakeCalendar();
        await mortar.Give(calendar, DemoPeople.Mei, Core.Access.Role.Edit);
        using var hers = await mortar.As(DemoPeople.Mei);
        await hers.MakeEvent(calendar, "Her glaze");
        var shelves = new Core.Words.CalendarId(Guid.CreateVersion7());
        (await hers.Put($"/api/calendars/{shelves.Value}", World.Calendar("Shop shelves"))).Is(200);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines).Week();
        ines.Find(Brick("Her glaze"));
        using var mei = new Screen(mortar.Url).SignIn(DemoPeople.Mei);
        mei.Open("/preferences");
        mei.Click("Delete my account");
        mei.WaitForText("Somebody else has to keep this first");
        mei.WaitForText("the calendar “Shop shelves”");
        mei.Click("Close");
        await mortar.Give(shelves, DemoPeople.Ines, Core.Access.Role.Coordinate);

        mei.Open("/preferences");
        mei.Click("Delete my account");
        mei.WaitForText("Delete it for good?");
        mei.WaitForText("You leave Studio team");
        mei.WaitForText("Web shop, of your own time");
        mei.Type("Your password, to delete the account", "wrong altogether");
        mei.Click("Delete my account for good");
        mei.WaitForText("That is not your password.");
        Assert.Equal(string.Empty, mei.Axe());
        Shot(mei, "delete-account");
        mei.Type("Your password, to delete the account", DemoPeople.Password);
        mei.Click("Delete my account for good");
        mei.WaitForText("Sign in");

        ines.Open("/roster/2026-03-11");
        ines.WaitForWall();
        Assert.False(ines.Has(By.XPath("//*[@role='rowheader'][contains(., 'Mei Sato')]")));
        ines.Open("/week/2026-03-11");
        ines.Find(Brick("Her glaze"));
    }

    [Fact]
    public async Task A_forgotten_password_is_set_anew_by_mail_and_the_other_browser_is_signed_out()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var other = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        other.Open("/preferences");
        other.WaitForText("Where you are signed in");
        other.WaitForText("this one, since");
        Assert.Equal(string.Empty, other.Axe());
        Shot(other, "sign-ins");
        using var ines = new Screen(mortar.Url).Open();
        ines.Click(Containing("a", "I forgot my password"));
        ines.Type("Mail address", "ines@example");
        ines.Click("Send the link");
        ines.WaitForText("name@example.org");
        Assert.Equal(string.Empty, ines.Axe());
        ines.Type("Mail address", "ines@example.org");
        ines.Click("Send the link");
        ines.WaitForText("If there is an account with that address");
        Shot(ines, "forgotten");

        var secret = await mortar.SecretIn(await mortar.MailWith("ines@example.org", "/reset/"), "/reset/");
        ines.Open($"/reset/{secret}");
        ines.Type("New password", "short");
        ines.Click("Set the password");
        ines.WaitForText("Choose a password of at least 10 characters.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "reset");
        ines.Type("New password", "four glazes two kilns");
        ines.Click("Set the password");
        ines.WaitForText("Your password is changed, and every device is signed out.");

        other.Open("/inbox");
        other.WaitForText("I forgot my password"); // it is asked who one is
        ines.Click(Containing("a", "Sign in with the new one"));
        ines.Type("Mail address", "ines@example.org");
        ines.Type("Password", "four glazes two kilns");
        ines.Click("Sign in");
        ines.WaitForWall();
        ines.Open($"/reset/{secret}");
        ines.Type("New password", "something else here");
        ines.Click("Set the password");
        ines.WaitForText("This link does not open any more");
    }

    [Fact]
    public async Task A_passkey_signs_in_without_address_and_password_until_it_is_taken_out()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        // A passkey is of a name: by a number there is none, and the page says so.
        var named = new UriBuilder(mortar.Url) { Host = "localhost" }.Uri;
        using var ines = new Screen(named);
        ines.HasAuthenticator();
        ines.SignIn(DemoPeople.Ines).Open("/preferences");
        Add(ines, "blue key", "not hers at all");
        ines.WaitForText("That is not your password.");
        Add(ines, "blue key", DemoPeople.Password);
        ines.WaitForText("“blue key” signs in to your account from now on.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "passkeys");
        Assert.NotNull(await mortar.MailWith("ines@example.org", "the passkey “blue key” can sign in"));
        Add(ines, "another", DemoPeople.Password);
        ines.WaitForText("This device has a passkey for your account already.");
        ines.Click(Containing("button", "Rename"));
        ines.Type("Name of the passkey", "studio door");
        ines.Click("Name it so");
        ines.WaitForText("It is “studio door” now.");

        SignOut(ines);
        Assert.Equal(string.Empty, ines.Axe());
        ines.Click("Sign in with a passkey");
        ines.WaitForWall();
        using (var other = await mortar.As(DemoPeople.Priya))
        {
            // The id is no secret; what one can do with it is its owner's alone.
            var id = ines.Script<string>(
                "return fetch('/api/passkeys').then((answer) => answer.json()).then((all) => all[0].id)"
            );
            (await other.Put($"/api/passkeys/{id}", new { name = "hers" })).IsProblem(404, "not-there");
            (await other.Delete($"/api/passkeys/{id}")).IsProblem(404, "not-there");
        }

        // What the device answered to one question is no answer to the next, nor to the same once more.
        SignOut(ines);
        Assert.Equal("204 401 401", ines.Script<string>(AnswerTwice));
        ines.Open("/preferences");
        ines.WaitForText("studio door");
        ines.Click(Containing("button", "Take out studio door"));
        ines.WaitForText("“studio door” does not sign in any more.");
        SignOut(ines);
        ines.Click("Sign in with a passkey");
        ines.WaitForText("This passkey does not open an account here.");

        using var byNumber = new Screen(mortar.Url).Open();
        byNumber.Click("Sign in with a passkey");
        byNumber.WaitForText("Passkeys need Mortar to be reached by a name and https");

        static void Add(Screen screen, string name, string password)
        {
            screen.Type("Name of a new passkey", name);
            screen.Type("Your password", password);
            screen.Click("Add a passkey of this device");
        }

        static void SignOut(Screen screen)
        {
            screen.SignOut();
            screen.WaitForText("I forgot my password");
        }
    }

    [Fact]
    public async Task A_code_is_asked_for_beside_the_password_and_a_recovery_code_opens_where_the_app_is_lost()
    {
        await using var mortar = await TestMortar.Start(Repository.Web);
        using var ines = new Screen(mortar.Url).SignIn(DemoPeople.Ines);
        ines.Open("/preferences");
        ines.Click("Ask for a code as well");
        var key = ines.Find(By.XPath("//textarea[string-length(.) = 32]")).GetAttribute("value")!;
        ines.Type("Code that the app shows now", "123");
        ines.Type("Password", DemoPeople.Password);
        ines.Click("Switch it on");
        ines.WaitForText("That code is not right, or was used already.");
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "second-factor");
        ines.Type("Code that the app shows now", Totp.Code(key, DateTimeOffset.UtcNow));
        ines.Click("Switch it on");
        ines.WaitForText("Keep these recovery codes");
        var recovery = ines.Text(By.CssSelector("ul[aria-label='Recovery codes'] li"));
        Assert.Equal(string.Empty, ines.Axe());
        Shot(ines, "recovery-codes");
        ines.Click("I have kept them");
        ines.WaitForText("It is on. 10 recovery codes are left.");

        using var other = new Screen(mortar.Url).Open();
        other.Type("Mail address", "ines@example.org");
        other.Type("Password", DemoPeople.Password);
        other.Click("Sign in");
        other.WaitForText("Give the code that your authenticator app shows now");
        Assert.Equal(string.Empty, other.Axe());
        Shot(other, "code");
        other.Type("Code", "000 00x");
        other.Click("Sign in");
        other.WaitForText("That code is not right, or was used already.");
        other.Type("Code", recovery);
        other.Click("Sign in");
        other.WaitForWall();
        other.Open("/preferences");
        other.WaitForText("It is on. 9 recovery codes are left.");
        other.Type("Password, to change this", DemoPeople.Password);
        other.Click("Switch it off");
        other.WaitForText("Ask for a code as well");
        ines.Open("/inbox");
        ines.WaitForText("I forgot my password"); // every other device is signed out
    }

    /// <summary>Signs in with an answer, sends it again, and sends it again to a new question; tells what each was answered with.</summary>
    private const string AnswerTwice = """
        const token = async () => (await (await fetch('/api/session')).json()).antiforgeryToken
        const post = async (path, body) => fetch(path, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json', 'X-Antiforgery': await token() },
          body: body && JSON.stringify(body),
        })
        return (async () => {
          const { options } = await (await post('/api/session/passkey/question')).json()
          const publicKey = PublicKeyCredential.parseRequestOptionsFromJSON(options)
          const credential = (await navigator.credentials.get({ publicKey })).toJSON()
          const answers = [(await post('/api/session/passkey', { credential })).status]
          answers.push((await post('/api/session/passkey', { credential })).status)
          await post('/api/session/passkey/question')
          answers.push((await post('/api/session/passkey', { credential })).status)
          return answers.join(' ')
        })()
        """;
}
