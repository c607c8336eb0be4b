using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Mortar.Browser.Tests;

/// <summary>
/// Has the page itself look for something, at once and whenever it changes: one question instead of one every few
/// milliseconds, which takes the very processor that the page waits for.
/// </summary>
internal static class Look
{
    /// <summary>How long the page looks; then it is asked again, since another page may stand there by now.</summary>
    private static readonly TimeSpan Longest = TimeSpan.FromSeconds(3);

    /// <summary>Arguments: "xpath" or "css selector", the expression, whether it is to be there or gone, milliseconds.</summary>
    private const string Script = """
        const [how, what, isThere, limit, done] = arguments
        const all = () => {
          if (how !== 'xpath') return [...document.querySelectorAll(what)]
          const found = document.evaluate(what, document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE, null)
          return Array.from({ length: found.snapshotLength }, (_, index) => found.snapshotItem(index))
        }
        const isSeen = (one) =>
          one.tagName === 'OPTION' || one.checkVisibility({ opacityProperty: true, visibilityProperty: true })
        const look = () => (isThere ? all().find(isSeen) : all().length === 0 ? document.documentElement : undefined)
        const first = look()
        if (first) return done(first)
        let soon = null
        const end = (found) => {
          watch.disconnect()
          for (const timer of [soon, last]) clearTimeout(timer)
          clearInterval(once)
          done(found)
        }
        const again = () => {
          soon = null
          const found = look()
          if (found) end(found)
        }
        const watch = new MutationObserver(() => {
          soon ??= setTimeout(again, 15)
        })
        watch.observe(document, { subtree: true, childList: true, attributes: true, characterData: true })
        // What is shown or hidden by style alone changes nothing that is watched.
        const once = setInterval(again, 250)
        const last = setTimeout(() => end(null), limit)
        """;

    /// <summary>The first that is seen, or the page where none is left; <c>null</c> where that did not come about.</summary>
    public static IWebElement? For(ChromeDriver driver, By by, bool isThere)
    {
        try
        {
            return driver.ExecuteAsyncScript(
                    Script,
                    by.Mechanism,
                    by.Criteria,
                    isThere,
                    (long)Longest.TotalMilliseconds
                ) as IWebElement;
        }
        catch (Exception left) when (left is JavaScriptException or WebDriverTimeoutException)
        {
            return null; // the page was left while it looked
        }
    }
}
